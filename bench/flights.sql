-- Plans four flights in each open job of a grown demo database (after jobs.sql): two as the job has it, two with another build and
-- somebody who learns at the controls. Run once.
create temporary table bench_build as select id, row_number() over (order by id) as rn from build;
create temporary table bench_person as select id, row_number() over (order by id) as rn from person;
insert into planned_flight (job_id, number, day, build_id, pilot_id, supervised_id, observer_id, minutes, purpose)
  select j.id, s.seq - 1, j.first_day,
    if(s.seq > 2, (select b.id from bench_build b where b.rn = 1 + crc32(j.id) % (select count(*) from build)), null),
    null,
    if(s.seq = 4 and j.pilot_id is not null, (select p.id from bench_person p where p.rn = 1 + crc32(j.name) % (select count(*) from person)
      and p.id <> j.pilot_id and (j.observer_id is null or p.id <> j.observer_id)), null),
    null, 12, ''
  from job j join seq_1_to_4 s where j.state = 'PLANNED' and not exists (select 1 from planned_flight f where f.job_id = j.id);
