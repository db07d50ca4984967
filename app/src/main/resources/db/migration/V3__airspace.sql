-- zones come from sources that are replaced as a whole
create table zone_source (
  id uuid primary key, version bigint not null, name varchar(120) not null unique, format varchar(20) not null, file_name varchar(255) not null,
  sha256 char(64) not null, attribution varchar(300) not null, published_on date null, stale_days int not null, whole boolean not null,
  brought_in_at timestamp(6) not null, brought_in_by varchar(120) not null, zones int not null, added int not null, changed int not null,
  removed int not null, notes mediumtext not null, what_changed mediumtext not null);
insert into zone_source
  select uuid(), 0, 'zones brought in before', 'GeoJSON', 'before', sha2('before', 256), '', null, 28, false, max(brought_in_at), 'upgrade', count(*), 0, 0, 0, '', ''
  from zone having count(*) > 0;
alter table zone
  modify column id varchar(160) not null, modify column name varchar(255) not null, add column source_id uuid null, drop column source, drop column brought_in_at;
update zone set source_id = (select id from zone_source limit 1);
alter table zone
  modify column source_id uuid not null, add index ix_zone_source (source_id),
  add constraint fk_zone_source foreign key (source_id) references zone_source(id) on delete cascade;

-- sites: several pieces with holes, what stands and lies there, what was said of the place
alter table site
  modify column area mediumtext not null, modify column notes varchar(4000) not null,
  add column elevation_m double null, add column buffer_m double null, add column terrain varchar(16) null,
  add column features mediumtext not null default '[]', add column particulars mediumtext not null default '{}';

-- whom to call, by area
create table directory_entry (
  id uuid primary key, version bigint not null, name varchar(120) not null, role varchar(24) not null, phone varchar(60) not null, radio varchar(60) not null,
  hours varchar(120) not null, area mediumtext not null, place_lat double null, place_lon double null, confirmed_on date null,
  confirmed_by varchar(120) not null, note varchar(1000) not null);

-- weather as read, typed or forecast, by site
create table weather_report (
  id uuid primary key, site_id uuid not null, at timestamp(6) not null, kind varchar(12) not null, raw varchar(800) not null, observation text not null,
  source varchar(200) not null, entered_by varchar(120) not null, entered_at timestamp(6) not null,
  index ix_weather_site (site_id, at), constraint fk_weather_site foreign key (site_id) references site(id) on delete cascade);

-- site surveys; one that is signed is never changed
create table site_survey (
  id uuid primary key, version bigint not null, site_id uuid not null, job_id uuid null, jurisdiction varchar(8) not null, visited_on date null,
  made_by varchar(120) not null, made_at timestamp(6) not null, answers mediumtext not null, seen_then mediumtext not null, copied_from uuid null,
  signed_by varchar(120) null, signed_at timestamp(6) null, signed_content mediumtext null,
  index ix_survey_site (site_id), constraint fk_survey_site foreign key (site_id) references site(id) on delete cascade,
  constraint fk_survey_job foreign key (job_id) references job(id));
