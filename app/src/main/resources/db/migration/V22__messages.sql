-- the simulated mailbox keeps messages as they came, files and all
alter table standin_mail add column raw longblob null;
