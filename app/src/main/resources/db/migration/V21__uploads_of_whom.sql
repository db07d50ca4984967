-- files that wait for their columns to be matched belong to the login that sent them
alter table upload add column uploaded_by_id uuid null;
