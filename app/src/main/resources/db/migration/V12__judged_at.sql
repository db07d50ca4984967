-- when a job was judged stands with its assessment
alter table job drop column assessed_at;
-- whether anything changed that the weave is laid from is asked with each page
create index ix_job_version on job (version);
create index ix_assessment_version on assessment (subject_kind, version);
-- the next jobs, in the order in which they are flown
create index ix_job_soon on job (state, first_day, from_time, last_day);
