-- Grows a demo database to some 5,000 open jobs on the coming 60 days by copying those there. Run once.
create table bench_copy (old uuid not null, fresh uuid not null primary key, seq int not null);
insert into bench_copy select j.id, uuid(), s.seq from (select id from job where state = 'PLANNED' order by first_day limit 10) j join seq_1_to_500 s;
insert into job (id, version, name, site_id, first_day, last_day, from_time, to_time, height_m, height_reference, said, pilot_id, observer_id,
  build_id, state, breached, not_known, close_count, go, reason, changed_note, law_breaches, departures)
  select c.fresh, 0, concat(j.name, ' ', c.seq), j.site_id, curdate() + interval (c.seq % 60 + 1) day, curdate() + interval (c.seq % 60 + 1) day,
  j.from_time, j.to_time, j.height_m, j.height_reference, j.said, j.pilot_id, j.observer_id, j.build_id, 'PLANNED', j.breached, j.not_known,
  j.close_count, j.go, j.reason, j.changed_note, j.law_breaches, j.departures
  from bench_copy c join job j on j.id = c.old;
insert into assessment select c.fresh, a.subject_kind, 0, a.judged_at, a.packs, a.heads_id, a.sha256, a.body from bench_copy c join assessment a on a.subject_id = c.old;
insert into finding select c.fresh, f.words_id, f.verdict, f.binding from bench_copy c join finding f on f.subject_id = c.old;
insert into need select c.fresh, n.rule_id, n.holder_id, n.kind, n.levels from bench_copy c join need n on n.subject_id = c.old;
