-- questions of papers, rules and open jobs ask by these alone
create index ix_paper_of on paper (holder_id);
drop index ix_paper_holder on paper;
create index ix_own_of on own_rule (bound_id);
drop index ix_own_bound on own_rule;
create index ix_job_open on job (state, last_day);
