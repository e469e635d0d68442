using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Lists;

/// <summary>The words of a row with their match type: a keyword, or a negative.</summary>
internal sealed class RowWords(RowCells cells, ReadingGround ground, ListDefaults defaults)
{
    private readonly string _keyword = ListColumns.NameOf(ItemTypes.Of(ItemKind.Keyword)["text"]);
    private readonly string _negative = ListColumns.NameOf(ItemTypes.Of(ItemKind.NegativeKeyword)["text"]);
    private readonly string _match = ListColumns.NameOf(ItemTypes.Of(ItemKind.Keyword)[WordsValue.MatchField]);

    /// <summary>True when the column of keywords is filled.</summary>
    public bool HasKeyword => cells.Has(_keyword);

    /// <summary>Words may say by their notation, their column or their match type that they are a negative.</summary>
    public void Read(ListRow row)
    {
        var column = cells.Has(_keyword) ? _keyword : _negative;
        if (!cells.Has(column))
        {
            cells.Refuse(row.Kind == ItemKind.Keyword ? _keyword : column, "is missing; write the words");
            return;
        }

        var cell = cells.Text(column);
        var noted = KeywordNotation.Read(cell);
        var negative = noted.Negative || column == _negative || row.Kind == ItemKind.NegativeKeyword;
        short? match = null;
        if (cells.Has(_match))
        {
            var written = cells.Text(_match);
            var plain = WithoutNegative(written, out var negativeType);
            var reading = ItemTypes.Of(ItemKind.Keyword)[WordsValue.MatchField].Type.Read(plain, ground);
            if (reading.Problem is null)
            {
                (match, negative) = ((short?)reading.Value, negative || negativeType);
            }
            else
            {
                cells.Refuse(_match, reading.Problem);
            }
        }

        if (negative && cells.Has(ListColumns.Item) && row.Kind == ItemKind.Keyword)
        {
            cells.Refuse(ListColumns.Item, "says keyword, the words are written as a negative; make them agree");
        }

        row.Kind = negative ? ItemKind.NegativeKeyword : ItemKind.Keyword;
        var words = row.Values.Type["text"].Type.Read(cell, ground);
        row.Values["text"] = words.Value ?? Reading.Shortened(noted.Text);
        row.Values[WordsValue.MatchField] =
            (short?)noted.Match ?? match ?? (short)(negative ? defaults.NegativeMatch : defaults.BareMatch);
        row.IsBare = !negative && noted.Match is null && match is null;
        if (words.Problem is { } problem)
        {
            row.Values["text"] = Reading.Shortened(noted.Text);
            cells.Refuse(column, problem);
        }
        else if (noted.Match is { } inText && match is { } inColumn && (short)inText != inColumn)
        {
            cells.Refuse(
                _match,
                $"says {Choices.NameOf((MatchType)inColumn)}, the keyword is written as {Choices.NameOf(inText)}; make them agree"
            );
        }
    }

    private static string WithoutNegative(string cell, out bool negative)
    {
        var text = TextIdentity.Of(cell);
        negative =
            text.StartsWith("negative", StringComparison.Ordinal) || text.StartsWith('-') || text.StartsWith('−');
        return text.Replace("negative", "", StringComparison.Ordinal).Trim(' ', '-', '−');
    }
}
