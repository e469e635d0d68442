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
drop trigger if exists note_insert on item;
drop trigger if exists note_delete on item;
drop trigger if exists note_update on item;
do $$
begin
  if not exists (select from mended where version = 1) then
    update item set item = (item - 'finalUrl') || jsonb_build_object('landingPage', nullif(item->>'finalUrl', '')) where item ? 'finalUrl';
    insert into mended values (1);
  end if;
end $$;

-- What is in a campaign, an ad group or a list goes with it.
create index if not exists item_campaign on item (account_id, ((item->>'campaignId')::bigint)) where item->>'campaignId' is not null;
create index if not exists item_ad_group on item (account_id, ((item->>'adGroupId')::bigint)) where item->>'adGroupId' is not null;
create index if not exists item_list on item (account_id, ((item->>'listId')::bigint)) where item->>'listId' is not null;

-- Whoever writes items holds their account's row; asking for it again at each item took as long as writing it.
alter table item drop constraint if exists item_account_id_fkey;

-- Reviews are told in the order in which they were said, to whoever asks with the number of the last one heard.
create sequence if not exists review_number;
alter table item add column if not exists review_number bigint;
create unique index if not exists item_review_number on item (account_id, review_number) where review_number is not null;
do $$
begin
  if not exists (select from mended where version = 2) then
    update item set review_number = nextval('review_number') where review <> 0;
    insert into mended values (2);
  end if;
end $$;

-- Every item has the number of its last change, and one that is gone keeps the number of its going: whoever sends a change can
-- say which version it was made on, and what changed is read in the order of the numbers.
create sequence if not exists item_version;
alter table item add column if not exists version bigint not null default 0;
create table if not exists gone_item (
  account_id text not null,
  kind smallint not null,
  item_id bigint not null,
  version bigint not null,
  primary key (account_id, kind, item_id)
);
alter table batch alter column answers drop not null;
do $$
begin
  if not exists (select from mended where version = 3) then
    if to_regclass('item_change') is not null then
      update item i set version = c.last from (select account_id, kind, item_id, max(id) as last from item_change group by 1, 2, 3) c
        where (c.account_id, c.kind, c.item_id) = (i.account_id, i.kind, i.item_id);
      insert into gone_item select c.account_id, c.kind, c.item_id, max(c.id) from item_change c
        where not exists (select from item i where (i.account_id, i.kind, i.item_id) = (c.account_id, c.kind, c.item_id)) group by 1, 2, 3;
      perform setval('item_version', greatest(1, (select max(id) from item_change)));
      drop table item_change;
    end if;
    update item set version = nextval('item_version') where version = 0;
    update batch b set answers = (select jsonb_agg((a - 'accepted') || jsonb_build_object('verdict', case when (a->>'accepted')::boolean then 1 else 2 end) order by place)
      from jsonb_array_elements(b.answers) with ordinality as t(a, place)) where jsonb_path_exists(b.answers, '$[0].accepted');
    insert into mended values (3);
  end if;
end $$;
create index if not exists item_account_version on item (account_id, version);
create index if not exists gone_item_account_version on gone_item (account_id, version);
