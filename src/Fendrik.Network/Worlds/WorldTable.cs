using System.Globalization;

namespace Fendrik.Network.Worlds;

/// <summary>A file of tab-separated values: notes after #, a line of names, then the rows.</summary>
public sealed class WorldTable
{
    private readonly string _file;
    private readonly string[] _names;

    private WorldTable(string file, string[] names, IReadOnlyList<WorldRow> rows)
    {
        _file = file;
        _names = names;
        Rows = rows;
    }

    /// <summary>The rows, in their order.</summary>
    public IReadOnlyList<WorldRow> Rows { get; }

    /// <summary>Reads a file.</summary>
    /// <exception cref="WorldFaultException">A row has not as many fields as there are names, or there are none.</exception>
    public static WorldTable Read(string file, string text)
    {
        string[]? names = null;
        var rows = new List<WorldRow>();
        WorldTable? table = null;
        var number = 0;
        foreach (var line in text.Split('\n'))
        {
            number++;
            var fields = line.TrimEnd('\r').Split('\t');
            if (line.StartsWith('#') || fields is [""])
            {
                continue;
            }

            if (names is null)
            {
                names = fields;
                table = new WorldTable(file, names, rows);
            }
            else if (fields.Length == names.Length)
            {
                rows.Add(new WorldRow(table!, number, fields));
            }
            else
            {
                throw new WorldFaultException(
                    file,
                    number,
                    $"{fields.Length} fields, but {names.Length} names above them."
                );
            }
        }

        return table ?? throw new WorldFaultException(file, 1, "There is no line of names.");
    }

    internal int ColumnOf(string name, int line) =>
        Array.IndexOf(_names, name) is >= 0 and var at
            ? at
            : throw new WorldFaultException(_file, line, $"There is no column “{name}”.");

    internal WorldFaultException Fault(int line, string reason) => new(_file, line, reason);
}

/// <summary>One row; each reader says what it expects where it finds something else.</summary>
public sealed class WorldRow(WorldTable table, int line, string[] fields)
{
    /// <summary>What is written in a column.</summary>
    public string Text(string column) => fields[table.ColumnOf(column, line)];

    /// <summary>What is written there, which must be something.</summary>
    public string Name(string column) =>
        Text(column) is { Length: > 0 } text ? text : throw Fault(column, "it is empty.");

    /// <summary>A number within bounds.</summary>
    public double Number(string column, double least, double most) =>
        double.TryParse(Text(column), NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
        && number >= least
        && number <= most
            ? number
            : throw Fault(column, $"“{Text(column)}” is not a number from {least} to {most}.");

    /// <summary>A whole number within bounds.</summary>
    public int Whole(string column, int least, int most) =>
        Number(column, least, most) is var number && number == Math.Floor(number)
            ? (int)number
            : throw Fault(column, $"“{Text(column)}” is not a whole number.");

    /// <summary>A number within bounds, or none where nothing is written.</summary>
    public double? NumberOrNone(string column, double least, double most) =>
        Text(column).Length == 0 ? null : Number(column, least, most);

    /// <summary>A day.</summary>
    public DateOnly Day(string column) => DayOf(column, Text(column));

    /// <summary>A day, or none where nothing is written.</summary>
    public DateOnly? DayOrNone(string column) => Text(column).Length == 0 ? null : Day(column);

    /// <summary>Spans of days: first..last, by commas.</summary>
    public IReadOnlyList<(DateOnly First, DateOnly Last)> Spans(string column) =>
        [
            .. List(column)
                .Select(span =>
                    span.Split("..") is [var first, var last]
                        ? (DayOf(column, first), DayOf(column, last))
                        : throw Fault(column, $"“{span}” is not a span of days, first..last.")
                ),
        ];

    /// <summary>Several texts, by commas.</summary>
    public IReadOnlyList<string> List(string column) =>
        Text(column).Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    /// <summary>One of some words.</summary>
    public T OneOf<T>(string column)
        where T : struct, Enum =>
        Enum.TryParse<T>(Text(column), ignoreCase: true, out var value) && Enum.IsDefined(value)
            ? value
            : throw Fault(
                column,
                $"“{Text(column)}” is none of {string.Join(", ", Enum.GetNames<T>().Select(name => name.ToLowerInvariant()))}."
            );

    /// <summary>A span of hours of a day, or none: 8:30-17:30.</summary>
    public (double From, double To)? Hours(string column)
    {
        if (Text(column) is not { Length: > 0 } text)
        {
            return null;
        }

        return
            text.Split('-') is [var from, var to] && HourOf(from) is { } begin && HourOf(to) is { } end && begin < end
            ? (begin, end)
            : throw Fault(column, $"“{text}” is not a span of hours, such as 8:30-17:30.");
    }

    /// <summary>What stands under a name in a list of things that exist.</summary>
    public T Known<T>(string column, string name, IReadOnlyDictionary<string, T> known) =>
        known.TryGetValue(name, out var value) ? value : throw Fault(column, $"“{name}” is not known.");

    /// <summary>A fault of a column in this row.</summary>
    public WorldFaultException Fault(string column, string reason) => table.Fault(line, $"{column}: {reason}");

    private DateOnly DayOf(string column, string text) =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            ? day
            : throw Fault(column, $"“{text}” is not a day, such as 2026-04-02.");

    private static double? HourOf(string text) =>
        text.Split(':') is { Length: 1 or 2 } parts
        && int.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out var hour)
        && hour <= 24
        && int.TryParse(
            parts.ElementAtOrDefault(1) ?? "0",
            NumberStyles.None,
            CultureInfo.InvariantCulture,
            out var minute
        )
        && minute < 60
            ? hour + minute / 60.0
            : null;
}
