-- Figures that a house chooses for itself; what is not here is as usual.
create table house_figure (
  code varchar(40) not null primary key, version bigint not null, amount double not null);
create table house_figure_aud (
  rev bigint not null, revtype tinyint null, code varchar(40) not null, amount double null, primary key (code, rev), index (rev));

-- What is to be filmed or photographed on a job, in its order.
create table shot (
  job_id uuid not null, number int not null, kind varchar(12) null, what varchar(200) not null, height_m double null, distance_m double null,
  minutes double null, resolution varchar(40) not null, frames_per_s double null, filter varchar(40) not null, notes varchar(400) not null,
  primary key (job_id, number), constraint fk_shot_job foreign key (job_id) references job(id) on delete cascade);
create table shot_aud (
  rev bigint not null, revtype tinyint not null, job_id uuid not null, number int not null, kind varchar(12) null, what varchar(200) null,
  height_m double null, distance_m double null, minutes double null, resolution varchar(40) null, frames_per_s double null, filter varchar(40) null,
  notes varchar(400) null, primary key (rev, job_id, number, revtype), index (job_id));
