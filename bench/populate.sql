-- Grows a demo database to 500 aircraft, 2,000 packs and 20,000 flights by copying what is there. Run once.
insert into aircraft (id, version, model_id, name, serial, market_date, remote_id_active, geo_awareness_current, flown_s, landings)
  select uuid(), 0, a.model_id, concat(a.name, ' ', s.seq), concat(a.serial, '-', s.seq), a.market_date, a.remote_id_active, a.geo_awareness_current, 0, 0
  from aircraft a join seq_1_to_45 s limit 489;
insert into pack (id, version, model_id, label, serial, bought_on, drawn_mah, equivalent_cycles, flights, flights_without_charge)
  select uuid(), 0, p.model_id, concat(p.label, '-', s.seq), concat(p.serial, '-', s.seq), p.bought_on, 0, 0, 0, 0 from pack p join seq_1_to_52 s limit 1962;
insert into paper (id, version, kind, level, number, issuer, jurisdiction, holder_kind, holder_id, issued_on, valid_from, valid_to, end_known, zone, lead_days, conditions, verified_where, amount_sdr, lifts, entered_by, entered_at)
  select uuid(), 0, 'markOnAircraft', null, concat('B-', a.serial), 'bench', 'EU', 'aircraft', a.id, null, '2026-01-01', null, 1, 'Atlantic/Azores', 0, '', '', null, '', 'bench', now() from aircraft a;
insert into flight (id, version, log_id, number_in_log, aircraft_id, pack_id, pilot_id, job_id, takeoff, landing, zone, duration_s, path_m, distance_m, height_m, height_from_altitude, speed_mps, charge_mah, energy_wh, charge_takeoff_pct, charge_landing_pct, least_cell_v, wind_mps, takeoff_lat, takeoff_lon, begins_in_air, ends_in_air, counted, looked_at, breached, not_known, close_count, worst, assessed_at)
  select uuid(), 0, f.log_id, f.number_in_log, f.aircraft_id, f.pack_id, f.pilot_id, null, f.takeoff - interval s.seq day, f.landing - interval s.seq day, f.zone, f.duration_s, f.path_m, f.distance_m, f.height_m, f.height_from_altitude, f.speed_mps, f.charge_mah, f.energy_wh, f.charge_takeoff_pct, f.charge_landing_pct, f.least_cell_v, f.wind_mps, f.takeoff_lat, f.takeoff_lon, f.begins_in_air, f.ends_in_air, 0, 1, f.breached, f.not_known, f.close_count, f.worst, f.assessed_at
  from (select * from flight order by takeoff limit 20) f join seq_1_to_999 s;
