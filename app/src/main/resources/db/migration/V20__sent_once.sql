-- a form that was sent: the same form sent again leads where the first one led, and does nothing a second time
create table form_sent (
  sent_key char(64) primary key, sent_at timestamp(6) not null, led_to varchar(600) null, index ix_form_sent_at (sent_at));
