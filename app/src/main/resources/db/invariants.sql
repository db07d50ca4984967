-- What must hold of stored data whatever was killed, when. Each question counts what does not hold; a line of words before it.
-- Run by ./yarrek doctor, by the tests, and after each round of the kill test.

-- a log without its original file
select count(*) from flight_log l left join flight_log_content c on c.log_id = l.id where c.log_id is null;
-- an original file of no log
select count(*) from flight_log_content c left join flight_log l on l.id = c.log_id where l.id is null;
-- an original whose sum is not the one it came with
select count(*) from flight_log l join flight_log_content c on c.log_id = l.id where sha2(c.content, 256) <> l.sha256;
-- a log without a flight
select count(*) from flight_log l where not exists (select 1 from flight f where f.log_id = l.id);
-- a flight without its log
select count(*) from flight f left join flight_log l on l.id = f.log_id where l.id is null;
-- a flight without its trace
select count(*) from flight f left join flight_trace t on t.flight_id = f.id where t.flight_id is null;
-- a flight without its figures
select count(*) from flight f left join flight_figures t on t.flight_id = f.id where t.flight_id is null;
-- a flight that was never judged
select count(*) from flight f left join assessment a on a.subject_id = f.id where a.subject_id is null;
-- a job that was never judged
select count(*) from job j left join assessment a on a.subject_id = j.id where a.subject_id is null;
-- a judgement of nothing
select count(*) from assessment a where not exists (select 1 from job j where j.id = a.subject_id)
  and not exists (select 1 from flight f where f.id = a.subject_id);
-- an aircraft with fewer landings than its counted flights
select count(*) from (select a.landings, sum(not f.ends_in_air) n from aircraft a join flight f on f.aircraft_id = a.id
  where f.counted group by a.id) x where landings < n;
-- an aircraft with less time in the air than its counted flights
select count(*) from (select a.flown_s, sum(round(f.duration_s)) n from aircraft a join flight f on f.aircraft_id = a.id
  where f.counted group by a.id) x where flown_s < n - 60;
-- a pack with fewer flights than are counted to it
select count(*) from (select p.flights, count(*) n from pack p join flight f on f.pack_id = p.id
  where f.counted group by p.id) x where flights < n;
-- a pilot with fewer landings than the flights counted
select count(*) from (select p.landings, sum(not f.ends_in_air) n from person p join flight f on f.pilot_id = p.id
  where f.counted group by p.id) x where landings < n;
-- a scan without its content
select count(*) from paper_scan s left join paper_scan_content c on c.scan_id = s.id where c.scan_id is null;
-- an approval that is held without a number or terms
select count(*) from approval where state in ('GRANTED', 'AMENDED') and (reference = '' or terms in ('', '{}'));
-- an approval of no job
select count(*) from approval a left join job j on j.id = a.job_id where j.id is null;
-- an answered call to a desk without its number
select count(*) from desk_call where state = 'ANSWERED' and number = '';
-- one step of one job asked for twice at once
select count(*) from (select 1 from approval where state not in ('REFUSED', 'WITHDRAWN', 'RUN_OUT')
  group by job_id, kind, zone_id, number_in_job, aircraft_id having count(*) > 1) x;
-- a piece of work that ended with things left undone and nobody stopped it
select count(*) from work w where w.ended_at is not null and w.stopped_by is null
  and exists (select 1 from work_item i where i.work_id = w.id and i.state = 'W');
-- a list of zones that does not hold as many as its source says
select count(*) from zone_source s where s.zones <> (select count(*) from zone z where z.source_id = s.id);
-- a pilot's login that belongs to nobody
select count(*) from app_user where role = 'PILOT' and person_id is null and enabled;
-- a second factor asked for without a secret
select count(*) from app_user where totp_since is not null and totp_secret is null;
