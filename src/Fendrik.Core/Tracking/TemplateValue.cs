namespace Fendrik.Core.Tracking;

/// <summary>What a variable of a template stands for: a text, several, or names with texts.</summary>
public abstract record TemplateValue
{
    private TemplateValue() { }

    /// <summary>False for an empty list: it is left out as if it had no value.</summary>
    public abstract bool IsDefined { get; }

    /// <summary>One text.</summary>
    public sealed record OfText(string Text) : TemplateValue
    {
        /// <inheritdoc/>
        public override bool IsDefined => true;
    }

    /// <summary>Several texts.</summary>
    public sealed record OfList(IReadOnlyList<string> Texts) : TemplateValue
    {
        /// <inheritdoc/>
        public override bool IsDefined => Texts.Count > 0;
    }

    /// <summary>Names with texts.</summary>
    public sealed record OfPairs(IReadOnlyList<KeyValuePair<string, string>> Pairs) : TemplateValue
    {
        /// <inheritdoc/>
        public override bool IsDefined => Pairs.Count > 0;
    }
}
