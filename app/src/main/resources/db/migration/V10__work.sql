-- schedule of the background (db-scheduler's own table)
create table scheduled_tasks (
  task_name varchar(100) not null, task_instance varchar(100) not null, task_data blob, execution_time timestamp(6) not null,
  picked boolean not null, picked_by varchar(50), last_success timestamp(6) null, last_failure timestamp(6) null,
  consecutive_failures int, last_heartbeat timestamp(6) null, version bigint not null, priority smallint,
  primary key (task_name, task_instance),
  index execution_time_idx (execution_time), index last_heartbeat_idx (last_heartbeat),
  index priority_execution_time_idx (priority desc, execution_time asc));

-- a piece of work on many things, and each of them: W waits, D is done, F failed
create table work (
  id uuid primary key, kind varchar(40) not null, cause varchar(400) not null, begun_at timestamp(6) not null,
  ended_at timestamp(6) null, stopped_by varchar(120) null, index ix_work_begun (begun_at));
create table work_item (
  id bigint auto_increment primary key, work_id uuid not null, subject_id uuid not null, state char(1) not null,
  error varchar(600) null, index ix_item_next (work_id, state, id),
  constraint fk_item_work foreign key (work_id) references work(id) on delete cascade);
