alter table aircraft_model
  add column flight_minutes double null,
  add column flight_minutes_stated varchar(16) null,
  add column flight_minutes_wh double null;
alter table aircraft_model_aud
  add column flight_minutes double null,
  add column flight_minutes_stated varchar(16) null,
  add column flight_minutes_wh double null;
