-- what has to be sent is looked for only while the job is still to be flown
alter table chain_due add column last_day date not null default '1970-01-01';
update chain_due d join job j on j.id = d.job_id set d.last_day = j.last_day;
delete d from chain_due d join job j on j.id = d.job_id where j.state <> 'PLANNED';
