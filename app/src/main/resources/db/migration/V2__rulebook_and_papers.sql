-- rules: packs brought in beside the shipped ones, the operator's own rules, departures from them, answers to questions
create table rule_pack (
  id uuid primary key, pack varchar(16) not null, version varchar(40) not null, file_name varchar(255) not null, content mediumtext not null,
  adopted_from date null, brought_in_by varchar(120) not null, brought_in_at timestamp(6) not null,
  constraint uq_pack_version unique (pack, version));
create table own_rule (
  id uuid primary key, version bigint not null, rule_id varchar(60) not null unique, layer varchar(16) not null, bound_to varchar(16) not null,
  bound_id uuid null, yaml varchar(8000) not null, active boolean not null, made_by varchar(120) not null, made_at timestamp(6) not null,
  index ix_own_bound (bound_to, bound_id));
create table waiver (
  id uuid primary key, job_id uuid not null, rule_id varchar(80) not null, reason varchar(1000) not null, made_by varchar(120) not null,
  made_at timestamp(6) not null, until_day date not null, ended_at timestamp(6) null, ended_by varchar(120) null,
  index ix_waiver_job (job_id), constraint fk_waiver_job foreign key (job_id) references job(id));
create table answer (
  about varchar(16) not null, about_id uuid not null, fact varchar(60) not null, value varchar(400) not null, said_by varchar(120) not null,
  said_at timestamp(6) not null, primary key (about, about_id, fact));
create table rulebook_stamp (id int primary key, stamp bigint not null);
insert into rulebook_stamp values (1, 1);

-- papers: kinds as data, what renewals cost and need, scans
create table paper_kind (
  code varchar(60) primary key, version bigint not null, words varchar(80) not null, holder varchar(16) not null, levels varchar(400) not null,
  lead_days int not null, renew_early_days int null, cost decimal(12,2) null, currency char(3) null, needs varchar(400) not null,
  insures varchar(16) null, shown_to_officials boolean not null, sort_order int not null);
insert into paper_kind (code, version, words, holder, levels, lead_days, renew_early_days, cost, currency, needs, insures, shown_to_officials, sort_order) values
 ('operatorRegistration', 0, 'operator registration', 'operator', '', 14, 60, null, null, '', null, true, 10),
 ('operatorCertificate', 0, 'operator''s certificate', 'operator', 'ReOC;RPOC;Part 102;LUC', 90, 180, null, null, 'manual, responsible persons', null, true, 20),
 ('operationalAuthorisation', 0, 'operational authorisation', 'operator', 'SFOC;waiver;PDRA;SORA;foreign operator', 60, 90, null, null, 'risk assessment, procedures', null, true, 30),
 ('liabilityInsurance', 0, 'liability insurance', 'operator', '', 10, 60, null, null, 'list of aircraft and pilots', 'liability', true, 40),
 ('tripInsurance', 0, 'trip cover', 'operator', '', 7, null, null, null, 'dates, destination, value carried', 'trip', false, 50),
 ('modelDeclaration', 0, 'model declaration', 'aircraft', 'controlledAirspace;nearPeople;overPeople;lowRiskBvlos;category1;category2;category3;category4', 0, null, null, null, 'listed by the authority', null, true, 60),
 ('aircraftRegistration', 0, 'aircraft registration', 'aircraft', '', 7, 180, null, null, 'serial number, date of purchase', null, true, 70),
 ('markOnAircraft', 0, 'mark', 'aircraft', '', 0, null, null, null, 'a photo of it in place', null, false, 80),
 ('remoteIdEntry', 0, 'remote identification entry', 'aircraft', '', 0, null, null, null, 'serial number of the module', null, false, 90),
 ('hullInsurance', 0, 'hull cover', 'aircraft', '', 10, 60, null, null, 'present value', 'hull', false, 100),
 ('maintenanceRelease', 0, 'maintenance release', 'aircraft', '', 7, null, null, null, '', null, false, 110),
 ('purchase', 0, 'proof of purchase', 'aircraft', '', 0, null, null, null, '', null, false, 115),
 ('customsPaper', 0, 'customs paper', 'aircraft', '', 21, null, null, null, 'serial numbers, values', null, true, 118),
 ('pilotCertificate', 0, 'certificate', 'pilot', 'A1/A3;A2;STS;Flyer ID;A2 CofC;GVC;RPC;basic;advanced;level1Complex;remote pilot;TRUST;accreditation;RePL;qualification', 14, 90, null, null, 'refresher or exam', null, true, 120),
 ('examPass', 0, 'exam pass', 'pilot', '', 0, null, null, null, '', null, false, 130),
 ('flightReview', 0, 'flight review', 'pilot', '', 30, null, null, null, 'a reviewer', null, false, 140),
 ('recencyProof', 0, 'recency proof', 'pilot', '', 14, null, null, null, 'recurrent training', null, true, 150),
 ('trainingCourse', 0, 'training course', 'pilot', '', 30, null, null, null, '', null, false, 160),
 ('firstAid', 0, 'first-aid course', 'pilot', '', 21, null, null, null, '', null, false, 165),
 ('radioCertificate', 0, 'radio certificate', 'pilot', '', 30, null, null, null, '', null, true, 170),
 ('ageProof', 0, 'age proof', 'pilot', '', 0, null, null, null, '', null, false, 180),
 ('identity', 0, 'identity document', 'pilot', '', 40, null, null, null, '', null, true, 185),
 ('approval', 0, 'approval', 'job', '', 14, null, null, null, '', null, true, 190),
 ('unlock', 0, 'unlock', 'job', '', 3, null, null, null, 'the approvals it rests on', null, false, 200),
 ('landownerPermission', 0, 'landowner''s permission', 'job', '', 14, null, null, null, '', null, true, 210),
 ('organiserInvitation', 0, 'organiser''s invitation', 'job', '', 14, null, null, null, '', null, true, 220),
 ('airlineConfirmation', 0, 'airline or airport confirmation', 'job', '', 7, null, null, null, 'list of packs with energy', null, true, 230),
 ('scaleCertificate', 0, 'scale certificate', 'operator', '', 21, null, null, null, '', null, false, 240);
alter table paper
  add column cost decimal(12,2) null, add column currency char(3) null, add column renew_early_days int null,
  add column needs varchar(400) not null default '', add column verified_by varchar(120) not null default '', add column verified_on date null,
  add column amount decimal(16,2) null, add column amount_currency char(3) null,
  modify column jurisdiction varchar(40) not null;
create table paper_scan (
  id uuid primary key, paper_id uuid not null, file_name varchar(255) not null, content_type varchar(60) not null, size_bytes bigint not null,
  sha256 char(64) not null, added_by varchar(120) not null, added_at timestamp(6) not null,
  index ix_scan_paper (paper_id), constraint fk_scan_paper foreign key (paper_id) references paper(id) on delete cascade);
create table paper_scan_content (
  scan_id uuid primary key, content longblob not null,
  constraint fk_scan_content foreign key (scan_id) references paper_scan(id) on delete cascade);

-- the day itself was never asked for: what is kept is the side of 1 January 2024 on which it lay
alter table aircraft add column market_date date null, add column bought_on date null;
update aircraft set market_date = case when marketed_before_2024 then '2023-12-31' else '2024-01-01' end where marketed_before_2024 is not null;
alter table aircraft drop column marketed_before_2024;

alter table job add column law_breaches int not null default 0, add column departures int not null default 0;

-- feeds, digests and what was sent
alter table app_user add column email varchar(200) null, add column digest boolean not null default false;
create table feed (
  id uuid primary key, user_id uuid not null, secret_hash char(64) not null unique, created_at timestamp(6) not null, revoked_at timestamp(6) null,
  constraint fk_feed_user foreign key (user_id) references app_user(id));
create table digest_sent (
  user_id uuid not null, sent_day date not null, sent_at timestamp(6) not null, primary key (user_id, sent_day),
  constraint fk_digest_user foreign key (user_id) references app_user(id));
create table standin_mail (
  id bigint auto_increment primary key, received_at timestamp(6) not null, envelope_from varchar(200) not null, envelope_to varchar(200) not null,
  subject varchar(400) not null, content mediumtext not null);

-- tables brought in, waiting to be matched and confirmed
create table register_upload (
  id uuid primary key, register varchar(20) not null, file_name varchar(255) not null, content longblob not null, uploaded_by varchar(120) not null,
  uploaded_at timestamp(6) not null, index ix_register_upload (uploaded_at));

alter table person add column last_flight_on date null;
update person p set last_flight_on = (select max(date(f.takeoff)) from flight f where f.pilot_id = p.id and f.counted);

-- a page of its own by which an official can check a set of documents; whoever has the address may look
create table check_link (
  token varchar(43) primary key, job_id uuid not null, person_id uuid not null, created_at timestamp(6) not null, revoked_at timestamp(6) null,
  constraint uq_check unique (job_id, person_id),
  constraint fk_check_job foreign key (job_id) references job(id), constraint fk_check_person foreign key (person_id) references person(id));
