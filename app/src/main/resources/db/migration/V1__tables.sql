create table app_user (
  id uuid primary key, version bigint not null, login varchar(64) not null unique, name varchar(120) not null,
  password_hash varchar(200) not null, role varchar(16) not null, person_id uuid null, enabled boolean not null,
  created_at timestamp(6) not null);
create table api_token (
  id uuid primary key, user_id uuid not null, name varchar(120) not null, token_hash char(64) not null unique,
  created_at timestamp(6) not null, revoked_at timestamp(6) null,
  constraint fk_token_user foreign key (user_id) references app_user(id));
create table login_failure (
  id bigint auto_increment primary key, login varchar(64) not null, address varchar(64) not null, failed_at timestamp(6) not null,
  index ix_failure (login, failed_at), index ix_failure_address (address, failed_at));
create table operator (
  id uuid primary key, version bigint not null, name varchar(160) not null, jurisdiction varchar(8) not null,
  zone varchar(64) not null, phone varchar(40) null);
create table SPRING_SESSION (
  PRIMARY_ID char(36) not null, SESSION_ID char(36) not null, CREATION_TIME bigint not null, LAST_ACCESS_TIME bigint not null,
  MAX_INACTIVE_INTERVAL int not null, EXPIRY_TIME bigint not null, PRINCIPAL_NAME varchar(100),
  constraint SPRING_SESSION_PK primary key (PRIMARY_ID));
create unique index SPRING_SESSION_IX1 on SPRING_SESSION (SESSION_ID);
create index SPRING_SESSION_IX2 on SPRING_SESSION (EXPIRY_TIME);
create index SPRING_SESSION_IX3 on SPRING_SESSION (PRINCIPAL_NAME);
create table SPRING_SESSION_ATTRIBUTES (
  SESSION_PRIMARY_ID char(36) not null, ATTRIBUTE_NAME varchar(200) not null, ATTRIBUTE_BYTES blob not null,
  constraint SPRING_SESSION_ATTRIBUTES_PK primary key (SESSION_PRIMARY_ID, ATTRIBUTE_NAME),
  constraint SPRING_SESSION_ATTRIBUTES_FK foreign key (SESSION_PRIMARY_ID) references SPRING_SESSION(PRIMARY_ID) on delete cascade);

create table person (
  id uuid primary key, version bigint not null, name varchar(120) not null unique, born_on date null, phone varchar(40) null,
  flown_s bigint not null, landings int not null);
create table aircraft_model (
  id uuid primary key, version bigint not null, maker varchar(120) not null, name varchar(120) not null,
  airframe_mass_g decimal(12,3) not null, tolerance_g decimal(12,3) null, max_takeoff_mass_g decimal(12,3) null,
  class_mark varchar(8) not null, privately_built boolean not null, has_camera boolean not null, is_toy boolean not null,
  max_level_speed_mps double null, dimension_m double null, wind_limit_mps double null,
  temperature_min_c double null, temperature_max_c double null, remote_id varchar(16) not null, lights varchar(200) not null,
  constraint uq_model unique (maker, name));
create table pack_model (
  id uuid primary key, version bigint not null, name varchar(120) not null unique, mass_g decimal(12,3) not null,
  tolerance_g decimal(12,3) null, capacity_mah double not null, cells int not null, nominal_v double not null);
create table pack_fit (
  aircraft_model_id uuid not null, pack_model_id uuid not null, primary key (aircraft_model_id, pack_model_id),
  constraint fk_fit_model foreign key (aircraft_model_id) references aircraft_model(id),
  constraint fk_fit_pack foreign key (pack_model_id) references pack_model(id));
create table accessory (
  id uuid primary key, version bigint not null, name varchar(120) not null unique, kind varchar(40) not null,
  mass_g decimal(12,3) not null, tolerance_g decimal(12,3) null, light varchar(40) null);
create table aircraft (
  id uuid primary key, version bigint not null, model_id uuid not null, name varchar(80) not null unique, serial varchar(80) not null unique,
  marketed_before_2024 boolean null, weighed_g decimal(12,3) null, weighed_resolution_g decimal(12,3) null, weighed_on date null,
  weighed_scale varchar(80) null, remote_id_active boolean null, geo_awareness_current boolean null,
  flown_s bigint not null, landings int not null,
  constraint fk_aircraft_model foreign key (model_id) references aircraft_model(id));
create table pack (
  id uuid primary key, version bigint not null, model_id uuid not null, label varchar(40) not null unique, serial varchar(80) null unique,
  bought_on date null, drawn_mah double not null, equivalent_cycles double not null, flights int not null, flights_without_charge int not null,
  constraint fk_pack_model foreign key (model_id) references pack_model(id));
create table build (
  id uuid primary key, version bigint not null, aircraft_id uuid not null, name varchar(120) not null, pack_model_id uuid not null,
  constraint fk_build_aircraft foreign key (aircraft_id) references aircraft(id),
  constraint fk_build_pack foreign key (pack_model_id) references pack_model(id),
  constraint uq_build unique (aircraft_id, name));
create table build_accessory (
  build_id uuid not null, accessory_id uuid not null, primary key (build_id, accessory_id),
  constraint fk_ba_build foreign key (build_id) references build(id),
  constraint fk_ba_accessory foreign key (accessory_id) references accessory(id));
create table weighing (
  id uuid primary key, build_id uuid not null, weighed_on date not null, scale varchar(80) not null, mass_g decimal(12,3) not null,
  resolution_g decimal(12,3) not null, part_ids varchar(4000) not null,
  constraint fk_weighing_build foreign key (build_id) references build(id));
create table paper (
  id uuid primary key, version bigint not null, kind varchar(60) not null, level varchar(40) null, number varchar(80) not null,
  issuer varchar(160) not null, jurisdiction varchar(8) not null, holder_kind varchar(16) not null, holder_id uuid not null,
  issued_on date null, valid_from date null, valid_to date null, end_known boolean not null, zone varchar(64) not null,
  lead_days int not null, conditions varchar(2000) not null, verified_where varchar(200) not null, amount_sdr double null,
  lifts varchar(1000) not null, entered_by varchar(120) not null, entered_at timestamp(6) not null,
  index ix_paper_holder (holder_kind, holder_id));
create table zone (
  id varchar(60) primary key, name varchar(160) not null, geojson mediumtext not null, source varchar(200) not null, brought_in_at timestamp(6) not null);
create table scenery (
  id int auto_increment primary key, geojson mediumtext not null);
create table site (
  id uuid primary key, version bigint not null, name varchar(120) not null unique, launch_lat double not null, launch_lon double not null,
  area varchar(8000) not null, jurisdiction varchar(8) not null, zone varchar(64) not null, relief_m double null,
  built_up_distance_m double null, over_water boolean null, notes varchar(2000) not null);
create table job (
  id uuid primary key, version bigint not null, name varchar(120) not null unique, site_id uuid not null, purpose varchar(16) null,
  category varchar(16) null, subcategory varchar(4) null, first_day date not null, last_day date not null, from_time time not null, to_time time not null,
  height_m double null, height_reference varchar(16) not null, pilot_distance_m double null, people_distance_m double null,
  over_people varchar(16) null, assembly boolean null, sight varchar(16) null, low_speed boolean null, speed_mps double null,
  structure_height_m double null, structure_distance_m double null, structure_artificial boolean null, structure_requested boolean null,
  emergency boolean null, dangerous boolean null, auto_modes boolean null, wind_mps double null, temperature_c double null,
  pilot_fit boolean null, hours_since_alcohol double null, pilot_id uuid null, observer_id uuid null, build_id uuid null, state varchar(16) not null,
  breached int not null, not_known int not null, close_count int not null, go varchar(16) not null, reason varchar(600) not null,
  assessed_at timestamp(6) null, assessment mediumtext null, changed_note varchar(1000) not null,
  index ix_job_day (first_day), index ix_job_build (build_id),
  constraint fk_job_site foreign key (site_id) references site(id),
  constraint fk_job_pilot foreign key (pilot_id) references person(id),
  constraint fk_job_observer foreign key (observer_id) references person(id),
  constraint fk_job_build foreign key (build_id) references build(id));
create table reading_plan (
  id uuid primary key, signature char(64) not null unique, name varchar(160) not null, plan text not null, saved_at timestamp(6) not null);
create table flight_log (
  id uuid primary key, file_name varchar(255) not null, sha256 char(64) not null unique, size_bytes bigint not null, format varchar(16) not null,
  notes mediumtext not null, truncated boolean not null, brought_in_by varchar(120) not null, brought_in_at timestamp(6) not null);
create table flight_log_content (
  log_id uuid primary key, content longblob not null,
  constraint fk_content_log foreign key (log_id) references flight_log(id) on delete cascade);
create table flight (
  id uuid primary key, version bigint not null, log_id uuid not null, number_in_log int not null, aircraft_id uuid null, pack_id uuid null,
  pilot_id uuid null, job_id uuid null, takeoff timestamp(6) not null, landing timestamp(6) not null, zone varchar(64) not null,
  duration_s double not null, path_m double not null, distance_m double null, height_m double null, height_from_altitude boolean not null,
  speed_mps double null, charge_mah double null, energy_wh double null, charge_takeoff_pct double null, charge_landing_pct double null,
  least_cell_v double null, wind_mps double null, takeoff_lat double null, takeoff_lon double null, begins_in_air boolean not null, ends_in_air boolean not null,
  counted boolean not null, looked_at boolean not null, breached int not null, not_known int not null, close_count int not null, worst varchar(600) not null,
  summary mediumtext not null, assessment mediumtext not null, assessed_at timestamp(6) not null,
  index ix_flight_takeoff (takeoff), index ix_flight_looked (looked_at), index ix_flight_aircraft (aircraft_id), index ix_flight_pilot (pilot_id), index ix_flight_job (job_id),
  constraint fk_flight_log foreign key (log_id) references flight_log(id),
  constraint fk_flight_aircraft foreign key (aircraft_id) references aircraft(id),
  constraint fk_flight_pack foreign key (pack_id) references pack(id),
  constraint fk_flight_pilot foreign key (pilot_id) references person(id),
  constraint fk_flight_job foreign key (job_id) references job(id));
create table flight_trace (
  flight_id uuid primary key, sha256 char(64) not null, content longblob not null,
  constraint fk_trace_flight foreign key (flight_id) references flight(id) on delete cascade);
create table incident (
  id uuid primary key, version bigint not null, kind varchar(40) not null, statement varchar(8000) not null, happened_at timestamp(6) not null,
  lat double null, lon double null, flight_id uuid null, rule_id varchar(80) null, breach varchar(2000) not null, harm varchar(400) not null, state varchar(16) not null,
  opened_by varchar(120) not null, opened_at timestamp(6) not null,
  constraint fk_incident_flight foreign key (flight_id) references flight(id));
create table upload (
  id uuid primary key, file_name varchar(255) not null, sha256 char(64) not null, content longblob not null, uploaded_by varchar(120) not null, uploaded_at timestamp(6) not null,
  index ix_upload_at (uploaded_at));
