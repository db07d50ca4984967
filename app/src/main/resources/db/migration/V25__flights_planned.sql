-- Flights planned one by one within a job; what is null is as the job has it for all. A job without any is one flight made of
-- what it says itself, so every job on file stays as it is.
create table planned_flight (
  job_id uuid not null, number int not null, day date not null, starts_at time null, build_id uuid null, pilot_id uuid null,
  supervised_id uuid null, observer_id uuid null, height_m double null, height_reference varchar(16) null, distance_m double null, subcategory varchar(4) null,
  minutes double null, mode varchar(16) null, purpose varchar(200) not null,
  primary key (job_id, number),
  index ix_planned_flight_pilot (pilot_id), index ix_planned_flight_build (build_id), index ix_planned_flight_supervised (supervised_id),
  index ix_planned_flight_observer (observer_id),
  constraint fk_planned_flight_job foreign key (job_id) references job(id) on delete cascade,
  constraint fk_planned_flight_build foreign key (build_id) references build(id),
  constraint fk_planned_flight_pilot foreign key (pilot_id) references person(id),
  constraint fk_planned_flight_supervised foreign key (supervised_id) references person(id),
  constraint fk_planned_flight_observer foreign key (observer_id) references person(id));
create table planned_flight_aud (
  rev bigint not null, revtype tinyint not null, job_id uuid not null, number int not null, day date null, starts_at time null,
  build_id uuid null, pilot_id uuid null, supervised_id uuid null, observer_id uuid null, height_m double null,
  height_reference varchar(16) null, distance_m double null, subcategory varchar(4) null, minutes double null, mode varchar(16) null, purpose varchar(200) null,
  primary key (rev, job_id, number, revtype), index (job_id));
