-- words of rules and heads of packs as they were when something was judged by them; kept for ever, each once
create table kept_words (
  id int not null auto_increment primary key, sha256 char(64) not null unique, rule_id varchar(80) null, words mediumtext not null,
  index ix_kept_rule (rule_id));

-- an assessment of a job (J) or a flight (F): its findings and the facts it rests on, packed, without the words of the rules
create table assessment (
  subject_id uuid primary key, subject_kind char(1) not null, version bigint not null, judged_at timestamp(6) not null,
  packs varchar(1000) not null, heads_id int not null, sha256 char(64) not null, body mediumblob not null);

-- what of it is asked for across many: rules that apply, with what came of them, and papers that they want of whom
create table finding (
  subject_id uuid not null, words_id int not null, verdict varchar(14) not null, binding boolean not null,
  primary key (subject_id, words_id), index ix_finding_rule (words_id, verdict));
create table need (
  subject_id uuid not null, rule_id varchar(80) not null, holder_id uuid not null, kind varchar(60) not null,
  levels varchar(400) not null, index ix_need_subject (subject_id), index ix_need_holder (holder_id));

-- figures of a flight beside those that its list shows
create table flight_figures (flight_id uuid primary key, figures mediumtext not null,
  constraint fk_figures_flight foreign key (flight_id) references flight(id) on delete cascade);
insert into flight_figures select id, summary from flight;
alter table flight drop column summary;
