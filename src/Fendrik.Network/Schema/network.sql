create table if not exists account (
  id text primary key,
  network text not null,
  currency text not null,
  time_zone text not null,
  seed bigint not null,
  now timestamptz not null,
  started_at timestamptz not null
);

create table if not exists item (
  account_id text not null references account on delete cascade,
  kind smallint not null,
  item_id bigint not null,
  item jsonb not null,
  review smallint not null,
  review_reason text,
  review_due timestamptz,
  primary key (account_id, kind, item_id)
);
create index if not exists item_review_due on item (account_id, review_due) where review_due is not null;

-- A batch that was carried out, with its answers: asked again under the same key, it is answered and not done again.
create table if not exists batch (
  account_id text not null references account on delete cascade,
  key text not null,
  answers jsonb not null,
  primary key (account_id, key)
);

create table if not exists performance (
  account_id text not null references account on delete cascade,
  day date not null,
  hour smallint not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  ad_id bigint not null,
  device smallint not null,
  site smallint not null,
  impressions bigint not null,
  clicks bigint not null,
  cost numeric(14,3) not null,
  conversions numeric(14,3) not null,
  value numeric(14,3) not null
);
create index if not exists performance_day on performance (account_id, day);

create table if not exists fault (
  id bigint generated always as identity primary key,
  account_id text not null,
  kind text not null,
  times integer not null,
  milliseconds integer not null,
  wording text
);
