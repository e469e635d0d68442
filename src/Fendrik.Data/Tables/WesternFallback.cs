using System.Text;

namespace Fendrik.Data.Tables;

/// <summary>
/// Reads bytes that UTF-8 has no meaning for as Windows-1252, so that an old list whose first thousands of rows are plain
/// keeps its later accents and pound signs.
/// </summary>
internal sealed class WesternFallback : DecoderFallback
{
    /// <summary>UTF-8 that reads so.</summary>
    public static Encoding Utf8 { get; } =
        Encoding.GetEncoding("utf-8", EncoderFallback.ReplacementFallback, new WesternFallback());

    /// <summary>Windows-1252.</summary>
    public static Encoding Western { get; } = CodePagesEncodingProvider.Instance.GetEncoding(1252)!;

    public override int MaxCharCount => 4;

    public override DecoderFallbackBuffer CreateFallbackBuffer() => new Letters();

    private sealed class Letters : DecoderFallbackBuffer
    {
        private string _letters = "";
        private int _next;

        public override int Remaining => _letters.Length - _next;

        public override bool Fallback(byte[] bytesUnknown, int index)
        {
            (_letters, _next) = (Western.GetString(bytesUnknown), 0);
            return _letters.Length > 0;
        }

        public override char GetNextChar() => _next < _letters.Length ? _letters[_next++] : '\0';

        public override bool MovePrevious()
        {
            if (_next == 0)
            {
                return false;
            }

            _next--;
            return true;
        }
    }
}
