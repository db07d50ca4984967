-- kinds of approval that the operator changed or added; what ships stands in the program
create table approval_kind (
  code varchar(40) primary key, version bigint not null, yaml mediumtext not null, active boolean not null,
  changed_by varchar(120) not null, changed_at timestamp(6) not null);
create table approval_setting (
  id int primary key, version bigint not null, hours_a_day double not null, margin_days int not null, tolerance_days int not null,
  tolerance_m double not null, rehearsal_days int not null, nudge_days int not null, confirm_minutes double not null,
  holidays mediumtext not null, procedures mediumtext not null, risks mediumtext not null);
insert into approval_setting values (1, 0, 6, 3, 0, 25, 7, 5, 3, '', '{}', '[]');

-- what has to be granted for a job: one row for each request
create table approval (
  id uuid primary key, version bigint not null, job_id uuid not null, kind varchar(40) not null, zone_id varchar(160) null,
  zone_name varchar(255) not null, number_in_job int not null, aircraft_id uuid null, title varchar(300) not null, granter varchar(200) not null,
  first_day date not null, last_day date not null, state varchar(16) not null, hours_spent double not null,
  request mediumtext not null, sent_at timestamp(6) null, decided_at timestamp(6) null, nudged_on date null,
  reference varchar(80) not null, terms mediumtext not null, conditions varchar(4000) not null, refusal varchar(2000) not null, paper_id uuid null,
  index ix_approval_job (job_id), index ix_approval_kind (kind),
  constraint fk_approval_job foreign key (job_id) references job(id),
  constraint fk_approval_aircraft foreign key (aircraft_id) references aircraft(id));
-- what was written, said, sent and decided, in order; never changed
create table approval_letter (
  id uuid primary key, approval_id uuid not null, at timestamp(6) not null, kind varchar(16) not null, by_whom varchar(120) not null,
  text mediumtext not null, file_name varchar(255) null, content_type varchar(80) null, content longblob null,
  index ix_letter_approval (approval_id, at), constraint fk_letter_approval foreign key (approval_id) references approval(id));
create table unlock_stage (
  approval_id uuid not null, stage varchar(24) not null, rehearsal boolean not null, done_at timestamp(6) not null, by_whom varchar(120) not null,
  note varchar(400) not null, primary key (approval_id, stage, rehearsal),
  constraint fk_stage_approval foreign key (approval_id) references approval(id));
-- applications: typed answers, and versions as made
create table application_answer (
  approval_id uuid not null, question varchar(40) not null, text mediumtext not null, said_by varchar(120) not null, said_at timestamp(6) not null,
  reused_from varchar(300) not null, primary key (approval_id, question), constraint fk_answer_approval foreign key (approval_id) references approval(id));
create table application_version (
  id uuid primary key, approval_id uuid not null, number int not null, made_by varchar(120) not null, made_at timestamp(6) not null,
  open_questions int not null, content mediumtext not null, pdf longblob not null, document longblob not null,
  constraint uq_application unique (approval_id, number), constraint fk_application_approval foreign key (approval_id) references approval(id));
-- requests to a desk over HTTP: the id is the key under which the desk must know it; one body of an approval goes out under one key
create table desk_call (
  id uuid primary key, approval_id uuid not null, desk varchar(16) not null, body mediumtext not null, body_hash char(64) not null,
  made_by varchar(120) not null, made_at timestamp(6) not null, state varchar(16) not null, tries int not null, number varchar(80) not null,
  answer mediumtext not null, answered_at timestamp(6) null,
  constraint uq_desk_call unique (approval_id, body_hash), constraint fk_call_approval foreign key (approval_id) references approval(id));

-- the simulated desks' own books
create table standin_request (
  desk varchar(16) not null, request_key varchar(64) not null, number varchar(40) not null unique, body mediumtext not null,
  received_at timestamp(6) not null, decided_at timestamp(6) not null, outcome varchar(16) not null, reason varchar(2000) not null,
  primary key (desk, request_key));
create table standin_fault (desk varchar(16) primary key, fault varchar(16) not null);

-- what is still to be sent for open jobs and until when, as last planned
create table chain_due (
  job_id uuid not null, step varchar(260) not null, title varchar(400) not null, send_by date not null, known boolean not null,
  waits boolean not null, primary key (job_id, step), index ix_due_send (send_by),
  constraint fk_due_job foreign key (job_id) references job(id) on delete cascade);
