-- What a job has besides its flights: hours of a day that differ, who is there without a flight, why a build goes. A job without any
-- is as it was.
create table job_besides (
  job_id uuid not null, number int not null, day date null, from_time time null, to_time time null, person_id uuid null,
  role varchar(16) null, build_id uuid null, why varchar(300) null,
  primary key (job_id, number),
  index ix_job_besides_person (person_id),
  constraint fk_job_besides_job foreign key (job_id) references job(id) on delete cascade,
  constraint fk_job_besides_person foreign key (person_id) references person(id),
  constraint fk_job_besides_build foreign key (build_id) references build(id));
create table job_besides_aud (
  rev bigint not null, revtype tinyint not null, job_id uuid not null, number int not null, day date null,
  from_time time null, to_time time null, person_id uuid null, role varchar(16) null, build_id uuid null, why varchar(300) null,
  primary key (rev, job_id, number, revtype), index (job_id));
-- Days on which a person is away or an aircraft in upkeep.
create table away (
  id uuid not null primary key, person_id uuid null, aircraft_id uuid null, first_day date not null, last_day date not null,
  why varchar(200) not null,
  index ix_away_days (last_day, first_day),
  constraint fk_away_person foreign key (person_id) references person(id) on delete cascade,
  constraint fk_away_aircraft foreign key (aircraft_id) references aircraft(id) on delete cascade,
  constraint ck_away_one check ((person_id is null) <> (aircraft_id is null)));
create table away_aud (
  id uuid not null, rev bigint not null, revtype tinyint not null, person_id uuid null, aircraft_id uuid null, first_day date null,
  last_day date null, why varchar(200) null, primary key (rev, id), index (id));
