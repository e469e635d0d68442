using Fendrik.Core.Auctions;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Serving;

/// <summary>When and on what an ad is shown, as far as it decides about what stands beside it.</summary>
/// <param name="Device">The device.</param>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Minute">Minutes after midnight on the account's clock.</param>
public readonly record struct ShownAt(Device Device, DateOnly Day, int Minute);

/// <summary>An extension that could stand beside an ad, and why it does or does not.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Extension">The extension.</param>
/// <param name="Shows">True when it shows.</param>
/// <param name="Why">Why not, in a few words; why, where it was chosen before others.</param>
public sealed record ConsideredExtension(ItemKind Kind, PlacedExtension Extension, bool Shows, string Why);

/// <summary>
/// Chooses what stands beside an ad: of what the levels in reach have, what may show at the moment, the best first, as far as there is
/// room. The network goes by it, and whoever explains it.
/// </summary>
public static class ShownExtensions
{
    /// <summary>Chooses among the extensions of one kind.</summary>
    /// <param name="rules">The network's.</param>
    /// <param name="type">The kind.</param>
    /// <param name="extensions">Those of the account, of the ad's campaign and of its ad group, as far as reviewers let them through.</param>
    /// <param name="at">When and on what.</param>
    /// <param name="recordOf">Clicks on ads beside which an extension showed, against those that their places usually bring.</param>
    /// <param name="triesOut">True when those that showed least go first, as they do now and then.</param>
    public static IReadOnlyList<ConsideredExtension> Choose(
        ExtensionRules rules,
        ExtensionType type,
        IReadOnlyList<PlacedExtension> extensions,
        ShownAt at,
        Func<long, ClickRecord> recordOf,
        bool triesOut = false
    )
    {
        var levels = ExtensionReach.LevelsOf(
            rules.Levels,
            new ExtensionCounts(
                CountAt(extensions, Level.Account),
                CountAt(extensions, Level.Campaign),
                CountAt(extensions, Level.AdGroup)
            )
        );
        var considered = new List<ConsideredExtension>(extensions.Count);
        var able = new List<(PlacedExtension Extension, double Success)>();
        foreach (var each in extensions)
        {
            if (Hindrance(each, levels, at) is { } why)
            {
                considered.Add(new ConsideredExtension(type.Kind, each, false, why));
            }
            else
            {
                var record = recordOf(each.Id);
                able.Add((each, triesOut ? -record.Expected : ClickLikelihood.Of(record, 1)));
            }
        }

        able.Sort((one, other) => (-one.Success, one.Extension.Id).CompareTo((-other.Success, other.Extension.Id)));
        considered.InsertRange(0, type.Choose(rules, [.. able.Select(each => each.Extension)], at.Device));
        return considered;
    }

    private static int CountAt(IReadOnlyList<PlacedExtension> extensions, Level level)
    {
        var count = 0;
        foreach (var each in extensions)
        {
            count += each.Level == level && each.State != ItemState.Paused ? 1 : 0;
        }

        return count;
    }

    /// <summary>What keeps an extension away whatever others there are.</summary>
    private static string? Hindrance(PlacedExtension each, IReadOnlyList<Level> levels, ShownAt at) =>
        each.State == ItemState.Paused ? "It is paused."
        : !levels.Contains(each.Level) ? "Those of a nearer level replace it."
        : each.ShowsFrom > at.Day ? $"It shows from {Serving.Hindrance.DayOf(each.ShowsFrom.Value)} on."
        : each.ShowsUntil < at.Day ? $"It showed until {Serving.Hindrance.DayOf(each.ShowsUntil.Value)}."
        : each.DevicePreference is { } only && only != at.Device
            ? $"It is for {Choices.NameOf(Choices.Device, (int)only)}s only."
        : each.Hours is { } hours && !hours.Holds(at.Day.DayOfWeek, at.Minute) ? $"It shows {hours} only."
        : null;
}
