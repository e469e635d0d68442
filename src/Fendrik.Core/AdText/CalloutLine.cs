namespace Fendrik.Core.AdText;

/// <summary>The line under an ad in which callouts stand one after the other.</summary>
/// <param name="room">Characters that it holds.</param>
/// <param name="wideCounts">What a wide character counts.</param>
public sealed class CalloutLine(int room, int wideCounts)
{
    /// <summary>What stands between two callouts.</summary>
    public const string Between = " · ";

    private int _taken;

    /// <summary>Characters that are left for one more, after what stands before it.</summary>
    public int Left => room - _taken - (_taken == 0 ? 0 : TextLength.Of(Between));

    /// <summary>Puts a text into the line when there is room for all of it.</summary>
    /// <returns>False when there is not.</returns>
    public bool Take(string text)
    {
        var length = TextLength.Of(text, wideCounts);
        if (length > Left)
        {
            return false;
        }

        _taken = room - Left + length;
        return true;
    }
}
