-- notices of which more was taken than is certain, and what a person decided about each
create table zone_doubt (
  id uuid primary key, version bigint not null, source_id uuid not null, zone_id varchar(255) not null, text mediumtext not null,
  why varchar(1000) not null, taken mediumtext not null, decision varchar(12) null, area mediumtext null,
  reason varchar(1000) not null, decided_by varchar(120) null, decided_at timestamp(6) null,
  constraint uq_zone_doubt unique (source_id, zone_id),
  constraint fk_doubt_source foreign key (source_id) references zone_source(id) on delete cascade);
