-- Where the rows of a list wait until they are kept or left. Unlogged: the file itself is kept safely in
-- intake_file_part, and after a crash it is read again.
create unlogged table intake_row (
  intake_id bigint not null,
  row_number integer not null,
  kind smallint not null,
  campaign text not null,
  campaign_key text not null,
  daily_budget numeric(14,3),
  start_date date,
  end_date date,
  networks smallint,
  ad_group text not null,
  ad_group_key text not null,
  ad_group_max_cpc numeric(14,3),
  text text not null,
  item_key text not null,
  match_type smallint,
  max_cpc numeric(14,3),
  state smallint,
  final_url text,
  headlines text[],
  descriptions text[],
  display_path text[],
  device_preference smallint,
  problem text,
  problem_field smallint,
  cells text[] not null
);
create index on intake_row (intake_id, row_number);

create unlogged table intake_campaign (
  intake_id bigint not null,
  name_key text not null,
  name text not null,
  first_row integer not null,
  daily_budget numeric(14,3),
  start_date date,
  end_date date,
  networks smallint,
  state smallint,
  campaign_id bigint,
  outcome smallint not null,
  primary key (intake_id, name_key)
);

create unlogged table intake_ad_group (
  intake_id bigint not null,
  campaign_key text not null,
  name_key text not null,
  name text not null,
  first_row integer not null,
  max_cpc numeric(14,3),
  state smallint,
  ad_group_id bigint,
  keywords integer not null,
  keywords_without_max_cpc integer not null,
  negatives integer not null,
  ads integer not null,
  outcome smallint not null,
  primary key (intake_id, campaign_key, name_key)
);

create unlogged table intake_verdict (
  intake_id bigint not null,
  row_number integer not null,
  kind smallint not null,
  outcome smallint not null,
  twin_row integer,
  item_id bigint
);
create index on intake_verdict (intake_id, row_number);
create index on intake_verdict (intake_id, outcome, row_number) where outcome in (4, 5);

-- Amounts that a person filled in for what a list leaves open; an empty ad group key means the campaign's daily budget.
-- Logged, unlike the rest: they are a person's work.
create table intake_fill (
  intake_id bigint not null,
  campaign_key text not null,
  ad_group_key text not null,
  amount numeric(14,3) not null,
  primary key (intake_id, campaign_key, ad_group_key)
);
