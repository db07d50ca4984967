-- a session holds only while its login is what it was: closing it, another role or password begins a new epoch
alter table app_user
  add session_epoch int not null default 0,
  add password_from_program boolean not null default false,
  add totp_secret varchar(64) null,
  add totp_since timestamp(6) null,
  add totp_last_step bigint not null default 0;
create table recovery_code (
  user_id uuid not null, code_hash char(64) not null, used_at timestamp(6) null, primary key (user_id, code_hash),
  constraint fk_recovery_user foreign key (user_id) references app_user(id));
create table password_reset (
  token_hash char(64) primary key, user_id uuid not null, made_at timestamp(6) not null, ends_at timestamp(6) not null,
  used_at timestamp(6) null, index ix_reset_user (user_id, made_at),
  constraint fk_reset_user foreign key (user_id) references app_user(id));
alter table api_token add may_write boolean not null default true, add ends_at timestamp(6) null;
-- tokens made before had no end; they get a quarter to be replaced in
update api_token set ends_at = timestampadd(day, 90, current_timestamp(6));
-- an incident belongs to the login that opened it, not to whoever has the same name
alter table incident add opened_by_id uuid null;
update incident i set opened_by_id = (select u.id from app_user u where u.name = i.opened_by)
  where (select count(*) from app_user u where u.name = i.opened_by) = 1;
