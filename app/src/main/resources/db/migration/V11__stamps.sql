-- what nodes hold in memory, and how often it was changed: one statement tells them all
create table stamp (name varchar(40) primary key, stamp bigint not null);
insert into stamp select 'rules', stamp from rulebook_stamp where id = 1;
drop table rulebook_stamp;
