using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>Search terms added up by period, the words in them, and what was decided about each.</summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261202000000_Terms")]
internal sealed class Terms : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.Sql(
            """
            create unlogged table term_period (
              id bigint generated always as identity primary key,
              account_id integer not null references account (id) on delete cascade,
              first_day date not null,
              last_day date not null,
              campaign_id bigint not null,
              ad_group_id bigint not null,
              report_revision bigint not null,
              is_ready boolean not null default false,
              terms integer not null default 0,
              seen_once integer not null default 0,
              clicks bigint not null default 0,
              cost numeric(14,3) not null default 0,
              conversions numeric(14,3) not null default 0,
              wasted numeric(14,3) not null default 0,
              unique (account_id, first_day, last_day, campaign_id, ad_group_id, report_revision)
            );
            -- By keyword: where a term came through.
            create unlogged table term_part (
              period_id bigint not null references term_period (id) on delete cascade,
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
            create index on term_part (period_id, term);
            create unlogged table term_sum (
              period_id bigint not null references term_period (id) on delete cascade,
              term text not null,
              term_key text not null,
              words text[] not null,
              first_seen date not null,
              ad_groups integer not null,
              impressions bigint not null,
              clicks bigint not null,
              cost numeric(14,3) not null,
              conversions numeric(14,3) not null,
              value numeric(14,3) not null
            );
            create index on term_sum (period_id, cost desc, term);
            create index on term_sum using gin (words);
            -- Words, pairs and threes of all terms; sold is the cost of terms that brought a conversion.
            create unlogged table term_word (
              period_id bigint not null references term_period (id) on delete cascade,
              size smallint not null,
              word text not null,
              terms integer not null,
              clicks bigint not null,
              cost numeric(14,3) not null,
              sold numeric(14,3) not null,
              conversions numeric(14,3) not null,
              primary key (period_id, size, word)
            );
            create index on term_word (period_id, size, cost desc, word);
            -- A decision stands as long as its step does.
            create table term_decision (
              account_id integer not null references account (id) on delete cascade,
              term text not null,
              step_id bigint not null,
              decision smallint not null,
              said text not null,
              reported_to date,
              primary key (account_id, term, step_id)
            );
            create index on term_decision (step_id);
            """
        );
}
