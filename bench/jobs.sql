-- Grows a demo database to some 5,000 open jobs on the coming 60 days by copying those there. Run once.
insert into job select uuid(), 0, concat(j.name, ' ', s.seq), j.site_id, j.purpose, j.category, j.subcategory, curdate() + interval (s.seq % 60 + 1) day, curdate() + interval (s.seq % 60 + 1) day, j.from_time, j.to_time,
  j.height_m, j.height_reference, j.pilot_distance_m, j.people_distance_m, j.over_people, j.assembly, j.sight, j.low_speed, j.speed_mps, j.structure_height_m, j.structure_distance_m, j.structure_artificial, j.structure_requested,
  j.emergency, j.dangerous, j.auto_modes, j.wind_mps, j.temperature_c, j.pilot_fit, j.hours_since_alcohol, j.pilot_id, j.observer_id, j.build_id, 'PLANNED', j.breached, j.not_known, j.close_count, j.go, j.reason, j.assessed_at, j.assessment, j.changed_note, j.law_breaches, j.departures
  from (select * from job where state = 'PLANNED' order by first_day limit 10) j join seq_1_to_500 s;
