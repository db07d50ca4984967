-- when the own rules of a state were last read in its authority's text, and by whom
create table law_reading (
  jurisdiction varchar(16) primary key, read_on date not null, note varchar(2000) not null, said_by varchar(120) not null,
  said_at timestamp(6) not null);

insert into paper_kind (code, version, words, holder, levels, lead_days, renew_early_days, cost, currency, needs, insures, shown_to_officials, sort_order)
 values ('airworthinessCertificate', 0, 'certificate of airworthiness', 'aircraft', '', 180, null, null, null, 'authority''s inspection', null, true, 105);

alter table aircraft_model add column max_height_m double null;

-- an incident is judged by the law of the place where it happened
alter table incident add column jurisdiction varchar(16) null, add column job_id uuid null, add column aircraft_id uuid null,
  add column pilot_id uuid null,
  add constraint fk_incident_job foreign key (job_id) references job(id),
  add constraint fk_incident_aircraft foreign key (aircraft_id) references aircraft(id);

-- duties of an incident that are done, or found not to be due, in somebody's words
create table incident_duty (
  incident_id uuid not null, rule_id varchar(80) not null, note varchar(1000) not null, settled_by varchar(120) not null,
  settled_at timestamp(6) not null, primary key (incident_id, rule_id),
  constraint fk_duty_incident foreign key (incident_id) references incident(id));

-- what of the passing of time has been judged: when it differs from what holds now, open jobs are judged again
create table passing_of_time (id int primary key, judged_for varchar(4000) not null);
insert into passing_of_time values (1, '');
