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

-- Which items changed, in order: whoever asks with the number of the last change seen is told what came after.
create table if not exists item_change (
  id bigint generated always as identity primary key,
  account_id text not null references account on delete cascade,
  kind smallint not null,
  item_id bigint not null
);
create index if not exists item_change_account on item_change (account_id, id);

create or replace function note_item_change() returns trigger language plpgsql as $$
begin
  insert into item_change (account_id, kind, item_id) select distinct account_id, kind, item_id from changed;
  return null;
end $$;
create or replace trigger note_insert after insert on item referencing new table as changed for each statement execute function note_item_change();
create or replace trigger note_delete after delete on item referencing old table as changed for each statement execute function note_item_change();

-- Reviews change items too, but not what they are.
create or replace function note_item_edit() returns trigger language plpgsql as $$
begin
  insert into item_change (account_id, kind, item_id)
    select n.account_id, n.kind, n.item_id from new_items n join old_items o using (account_id, kind, item_id) where n.item <> o.item;
  return null;
end $$;
create or replace trigger note_update after update on item referencing old table as old_items new table as new_items
  for each statement execute function note_item_edit();

-- What was searched for, by day.
create table if not exists search_term (
  account_id text not null references account on delete cascade,
  day date not null,
  term text not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  impressions bigint not null,
  clicks bigint not null,
  cost numeric(14,3) not null,
  conversions numeric(14,3) not null,
  value numeric(14,3) not null
);
create index if not exists search_term_day on search_term (account_id, day);

create table if not exists fault (
  id bigint generated always as identity primary key,
  account_id text not null,
  kind text not null,
  times integer not null,
  milliseconds integer not null,
  wording text
);

-- What has been mended in a database that was made before.
create table if not exists mended (version integer primary key);
do $$
begin
  if not exists (select from mended where version = 1) then
    alter table item disable trigger note_update;
    update item set item = (item - 'finalUrl') || jsonb_build_object('landingPage', nullif(item->>'finalUrl', '')) where item ? 'finalUrl';
    alter table item enable trigger note_update;
    insert into mended values (1);
  end if;
end $$;

-- What is in a campaign, an ad group or a list goes with it.
create index if not exists item_campaign on item (account_id, ((item->>'campaignId')::bigint)) where item->>'campaignId' is not null;
create index if not exists item_ad_group on item (account_id, ((item->>'adGroupId')::bigint)) where item->>'adGroupId' is not null;
create index if not exists item_list on item (account_id, ((item->>'listId')::bigint)) where item->>'listId' is not null;

-- Whoever writes items holds their account's row; asking for it again at each item took as long as writing it.
alter table item drop constraint if exists item_account_id_fkey;
alter table item_change drop constraint if exists item_change_account_id_fkey;

-- Reviews are told in the order in which they were said, to whoever asks with the number of the last one heard.
create sequence if not exists review_number;
alter table item add column if not exists review_number bigint;
create unique index if not exists item_review_number on item (account_id, review_number) where review_number is not null;
do $$
begin
  if not exists (select from mended where version = 2) then
    alter table item disable trigger note_update;
    update item set review_number = nextval('review_number') where review <> 0;
    alter table item enable trigger note_update;
    insert into mended values (2);
  end if;
end $$;
