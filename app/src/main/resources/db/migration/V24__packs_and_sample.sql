-- When each pack was last flown is asked of all packs at once.
create index ix_flight_pack on flight (pack_id, takeoff);

-- what of the records came with the sample, so that it can be taken out whole
create table sample_record (id uuid primary key);
