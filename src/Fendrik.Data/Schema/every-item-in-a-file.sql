-- Intake of every kind of item, with what is to be done with it. What was staged is read again from the kept file.
truncate intake_row, intake_campaign, intake_ad_group, intake_verdict;

alter table intake_row
  add column intent smallint not null,
  add column list text not null,
  add column list_key text not null,
  add column labels text,
  add column cleared smallint not null;
alter table intake_campaign add column labels text, add column cleared smallint not null;
alter table intake_ad_group add column labels text, add column cleared smallint not null;
alter table intake_verdict add column reason text;
drop index intake_verdict_intake_id_outcome_row_number_idx;
create index on intake_verdict (intake_id, outcome, row_number) where outcome in (4, 5, 7);

create unlogged table intake_list (
  intake_id bigint not null,
  name_key text not null,
  name text not null,
  first_row integer not null,
  labels text,
  cleared smallint not null,
  attach text[] not null,
  detach text[] not null,
  list_id bigint,
  outcome smallint not null,
  primary key (intake_id, name_key)
);
