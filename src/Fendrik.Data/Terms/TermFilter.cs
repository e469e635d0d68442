using Dapper;
using Fendrik.Core.Matching;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Sheets.Conditions;

namespace Fendrik.Data.Terms;

/// <summary>Turns what is asked of search terms into SQL over the kept sums, which are row <c>f</c>. Values travel as parameters.</summary>
internal static class TermFilter
{
    /// <summary>What stands of decisions about a term of the row.</summary>
    public const string Decision =
        "(select d.decision, d.said from term_decision d join step s on s.id = d.step_id and s.reverted_by is null where d.account_id = @account and d.term = f.term order by d.step_id desc limit 1)";

    private const string IsDecided =
        "exists (select from term_decision d join step s on s.id = d.step_id and s.reverted_by is null where d.account_id = @account and d.term = f.term)";

    /// <summary>True where the account has the term as a keyword.</summary>
    public const string IsKeyword =
        "exists (select from keyword k where k.account_id = @account and k.text_key = f.term_key and not k.removed)";

    /// <summary>True where it was first seen after the last decisions.</summary>
    public const string IsNew = "(@since::date is null or f.first_seen > @since)";

    /// <summary>The condition, with its values among the parameters.</summary>
    /// <exception cref="InvalidChangeException">A condition cannot be read.</exception>
    public static string Of(TermRequest request, DynamicParameters parameters)
    {
        var all = new List<string> { "f.period_id = @period" };
        if (!string.IsNullOrWhiteSpace(request.Text))
        {
            parameters.Add("text", LikePattern.Containing(request.Text));
            all.Add("f.term_key like @text");
        }

        if (Words.Of(request.Word ?? "") is { Count: > 0 } words)
        {
            parameters.Add("words", words.ToArray());
            all.Add("f.words @> @words");
            if (words.Count > 1)
            {
                parameters.Add("together", $"% {string.Join(' ', words)} %");
                all.Add("' ' || array_to_string(f.words, ' ') || ' ' like @together");
            }
        }

        if (request.Decided is { } decided)
        {
            all.Add(decided ? IsDecided : $"not {IsDecided}");
        }

        if (request.WithoutKeyword)
        {
            all.Add($"not {IsKeyword}");
        }

        if (request.New)
        {
            all.Add(IsNew);
        }

        if (request.Several)
        {
            all.Add("f.ad_groups > 1");
        }

        if (request.Conditions.Count > ConditionSql.MostConditions)
        {
            throw new InvalidChangeException("conditions", $"At most {ConditionSql.MostConditions} conditions.");
        }

        foreach (var (condition, number) in request.Conditions.Select((condition, at) => (condition, at)))
        {
            if (SheetFields.Find(condition.Field) is not { IsFigure: true })
            {
                throw new InvalidChangeException("conditions", $"“{condition.Field}” is no figure of search terms.");
            }

            ConditionSql.AddValues(condition, number, parameters);
            all.Add(ConditionSql.Of(condition, number, ItemTable.Of(ItemKind.Keyword)));
        }

        return string.Join(" and ", all);
    }

    /// <summary>The order, with the term at its end so that it is always the same.</summary>
    public static string Order(TermOrder order) =>
        order switch
        {
            TermOrder.Cost => "f.cost desc, f.term",
            TermOrder.Clicks => "f.clicks desc, f.cost desc, f.term",
            TermOrder.Impressions => "f.impressions desc, f.cost desc, f.term",
            TermOrder.Conversions => "f.conversions desc, f.cost desc, f.term",
            TermOrder.FirstSeen => "f.first_seen desc, f.cost desc, f.term",
            TermOrder.Term => "f.term",
        };
}
