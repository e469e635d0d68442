using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items;

/// <summary>
/// A kind of item, described once. SQL, the columns and editors of the interface, files and their schema are made from it;
/// what has to be thought of for every kind is abstract here, so that a kind without it does not compile.
/// </summary>
public abstract class ItemType
{
    private readonly Dictionary<string, Field> _byName;

    private readonly Field[] _published;

    /// <summary>Describes a kind with these fields, in the order in which files and the sheet have them.</summary>
    protected ItemType(params Field[] fields)
    {
        Fields = [.. fields, CommonFields.Labels()];
        foreach (var (ordinal, field) in Fields.Index())
        {
            field.BelongTo(this, ordinal);
        }

        _byName = Fields.ToDictionary(field => field.Name, StringComparer.Ordinal);
        _published = [.. Fields.Where(field => field.IsPublished)];
        TextsForReviewers =
        [
            .. _published.Where(field => field is { IsText: true, IsReviewed: true } && field.Type is not AddressValue),
        ];
    }

    /// <summary>The kind.</summary>
    public abstract ItemKind Kind { get; }

    /// <summary>Its name in the data of profiles and in JSON: adGroup.</summary>
    public string Key => field ??= NetworkProfile.KeyOf(Kind);

    /// <summary>What one of it is called: ad group.</summary>
    public abstract string Noun { get; }

    /// <summary>What several of it are called.</summary>
    public virtual string Plural => Noun + "s";

    /// <summary>The word for it in files; the noun unless that would be mistaken there.</summary>
    public virtual string FileWord => Noun;

    /// <summary>What else people write for it in a column that says what a row is.</summary>
    public virtual IReadOnlyList<string> OtherWords => [];

    /// <summary>Its table.</summary>
    public abstract string Table { get; }

    /// <summary>Where it may stand. One that stands in an ad group or on a campaign has those as parents.</summary>
    public abstract IReadOnlyList<Level> Levels { get; }

    /// <summary>All its fields; labels, which every kind has, are the last.</summary>
    public IReadOnlyList<Field> Fields { get; }

    /// <summary>The fields whose texts reviewers read, where they read the kind at all.</summary>
    internal IReadOnlyList<Field> TextsForReviewers { get; }

    /// <summary>The field, or fields one after the other, by which people know an item; none when it is known otherwise.</summary>
    public abstract Field? NameField { get; }

    /// <summary>True when the network's reviewers look at it.</summary>
    public abstract bool IsReviewed { get; }

    /// <summary>True when people see its texts; false when they only search for them, or nobody but the account does.</summary>
    public virtual bool IsSeen => false;

    /// <summary>The column of performance facts that names it; none when there are no figures of it.</summary>
    public abstract string? FigureColumn { get; }

    /// <summary>What is said when another of the same identity is there already.</summary>
    public abstract string TwinProblem { get; }

    /// <summary>False for what there is always one of: it is neither added nor removed.</summary>
    public virtual bool ComesAndGoes => true;

    /// <summary>
    /// True when identity is all that the item says, kept as a hash in <c>content_key</c>; such an item is known in files by a
    /// reference of its own, so that a file can change what it says.
    /// </summary>
    public virtual bool IsKnownByContent => false;

    /// <summary>The level at which what is inside it stands, for kinds that hold others; none for the others.</summary>
    public virtual Level? Holds => null;

    /// <summary>
    /// The levels at which an item names a parent. What stands in an ad group alone finds its campaign by that; what stands at
    /// several levels names each above it.
    /// </summary>
    public IEnumerable<Level> ParentLevels
    {
        get
        {
            if (StandsIn(Level.Campaign) || (Levels.Count > 1 && StandsIn(Level.AdGroup)))
            {
                yield return Level.Campaign;
            }

            if (StandsIn(Level.AdGroup))
            {
                yield return Level.AdGroup;
            }

            if (StandsIn(Level.List))
            {
                yield return Level.List;
            }
        }
    }

    /// <summary>The name under which an item says which parent it has at a level: <c>campaignId</c>.</summary>
    public static string ParentName(Level level) =>
        level switch
        {
            Level.Campaign => "campaignId",
            Level.AdGroup => "adGroupId",
            Level.List => "listId",
            Level.Account => throw new ArgumentException("The account is no parent of its own.", nameof(level)),
        };

    /// <summary>The parents that an item names, as it is kept and travels to the network.</summary>
    /// <exception cref="JsonException">A parent is no number.</exception>
    public IEnumerable<(ItemKind Kind, long Id)> ParentsOf(JsonElement item)
    {
        foreach (var level in ParentLevels)
        {
            if (item.TryGetProperty(ParentName(level), out var parent) && parent.ValueKind != JsonValueKind.Null)
            {
                yield return parent.ValueKind == JsonValueKind.Number && parent.TryGetInt64(out var id)
                    ? (ItemTypes.HolderOf(level)!.Kind, id)
                    : throw new JsonException($"{ParentName(level)} is no whole number.");
            }
        }
    }

    /// <summary>True when an item names parents as one of its levels asks for.</summary>
    public bool IsPlaced(JsonElement item)
    {
        var named = ParentLevels
            .Where(level =>
                item.TryGetProperty(ParentName(level), out var parent) && parent.ValueKind == JsonValueKind.Number
            )
            .ToHashSet();
        return Levels.Any(level =>
            level switch
            {
                Level.Account => named.Count == 0,
                Level.Campaign => named.SetEquals([Level.Campaign]),
                Level.AdGroup => named.Contains(Level.AdGroup) && !named.Contains(Level.List),
                Level.List => named.SetEquals([Level.List]),
            }
        );
    }

    /// <summary>True when it has a parent at this level.</summary>
    public bool StandsIn(Level level) => Levels.Contains(level);

    /// <summary>Parts of identity, in the order of the index that holds it: key columns and values.</summary>
    public IEnumerable<string> IdentityColumns =>
        IsKnownByContent
            ? ["content_key"]
            : Fields.Where(each => each.IsIdentity).Select(each => each.KeyColumn ?? each.Column);

    /// <summary>The field with this name.</summary>
    public Field? Find(string name) => _byName.GetValueOrDefault(name);

    /// <summary>The field with this name.</summary>
    /// <exception cref="KeyNotFoundException">The kind has no such field.</exception>
    public Field this[string name] => _byName[name];

    /// <summary>
    /// The key of an item that is known by its content: what it says, without regard to capitals, as the hexadecimal digits of
    /// its SHA-256, since long keys must fit an index.
    /// </summary>
    public string ContentKeyOf(ItemValues values)
    {
        var content = TextIdentity.Of(
            Fields
                .Where(field => field.IsIdentity)
                .SelectMany(field =>
                    values[field] switch
                    {
                        string[] lines => lines.Append("|"),
                        null => [field.Type is LinesValue ? "|" : ""],
                        var value => [field.Type.Write(value, ReadingGround.Plain(Accounts.Currency.Of("GBP")))],
                    }
                )
        );
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(content)));
    }

    /// <summary>Looks at an item by itself, as a network with this profile would.</summary>
    public IReadOnlyList<Finding> Check(ItemValues values, CheckReport report)
    {
        // Nearly all items are well: a list is made for those that are not.
        List<Finding>? found = null;
        void Add(IEnumerable<Finding> findings)
        {
            if (findings is not ICollection<Finding> { Count: 0 })
            {
                (found ??= []).AddRange(findings);
            }
        }

        var limits = report.Network.LimitsOf(this);
        foreach (var field in _published)
        {
            var value = values[field];
            if (!field.Type.IsNothing(value))
            {
                Add(field.Type.Check(field, value!, limits[field.Ordinal], report));
            }
            else if (field.Type is LinesValue)
            {
                Add(field.Type.Check(field, Array.Empty<string>(), limits[field.Ordinal], report));
            }
            else if (field.IsNeeded && (field.UnlessFilled is not { } other || values[other] is null))
            {
                Add([report.Blocker(field, "missing", $"{field.LowLabel} missing", field.MissingAdvice)]);
            }
        }

        Add(ReviewedTexts.Check(values, report));
        Add(CheckMore(values, report));
        return found ?? [];
    }

    /// <summary>What is to be looked at besides each field by itself.</summary>
    protected abstract IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report);
}
