-- who grants: where to write to, when they are at work; hours of work of what is to be sent
create table granter (
  id uuid primary key, version bigint not null, name varchar(200) not null, email varchar(200) not null, phone varchar(60) not null,
  hours varchar(400) not null, closed mediumtext not null, note varchar(1000) not null, unique key uk_granter_name (name));
create table granter_aud as select 1 as rev, 0 as revtype, id, name, email, phone, hours, closed, note from granter;
alter table granter_aud modify rev bigint not null, modify revtype tinyint null, add primary key (id, rev), add index (rev);
alter table chain_due add column hours double not null default 0;
