namespace Fendrik.Core.Reporting.Measures;

/// <summary>A measure that somebody made of the others.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Formula">How it comes about; see <see cref="MeasureFormula"/>.</param>
/// <param name="Form">How it is written: money only where the formula gives money.</param>
public sealed record OwnMeasure(string Name, string Formula, MeasureForm Form)
{
    /// <summary>Longest name, in characters.</summary>
    public const int LongestName = 40;

    /// <summary>What its key begins with, so that none of them is taken for one that everybody has.</summary>
    public const string KeyPrefix = "own:";

    /// <summary>Its key.</summary>
    public string Key => KeyPrefix + Name;

    /// <summary>The measure, ready to be asked.</summary>
    /// <exception cref="FormulaException">The formula cannot be, or cannot be written so.</exception>
    public Measure ToMeasure()
    {
        var formula = MeasureFormula.Read(Formula);
        if ((Form == MeasureForm.Money) != (formula.Unit.Money == 1))
        {
            throw new FormulaException(
                formula.Unit.Money == 1
                    ? $"The result is {formula.Unit}: write it as money."
                    : $"The result is {formula.Unit}, no money: write it as a number or in per cent."
            );
        }

        return new Measure(
            Key,
            Name,
            Name,
            char.ToUpperInvariant(formula.Text[0]) + formula.Text[1..] + ".",
            formula.Unit,
            Form,
            MeasureGroup.Own,
            formula.Of
        );
    }
}
