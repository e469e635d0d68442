using System.Text.Json;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;

namespace Fendrik.Data.Tables;

/// <summary>The items of a JSON file as rows of cells, read one after the other: memory holds one item, however long the file.</summary>
internal static class JsonTable
{
    /// <summary>Longest single item; what is longer is no item.</summary>
    private const int LongestItem = 1 << 20;

    /// <exception cref="IntakeFileException">The file is not in the form, or of a later version.</exception>
    public static IEnumerable<ArraySegment<string>> Rows(Stream content)
    {
        var file = new Cursor(content);
        file.Begin();
        var columns = AccountFile.Columns;
        var placeOf = columns.Index().ToDictionary(each => each.Item.Name, each => each.Index, StringComparer.Ordinal);
        var cells = new string[columns.Count];
        for (var column = 0; column < cells.Length; column++)
        {
            cells[column] =
                file.Currency is { } currency && columns[column].IsAmount
                    ? $"{columns[column].Label} ({currency})"
                    : columns[column].Label;
        }

        yield return cells;
        while (file.NextItem() is { } item)
        {
            using (item)
            {
                AccountFile.Read(item.RootElement, placeOf, cells);
            }

            yield return cells;
        }
    }

    private sealed class Cursor(Stream content)
    {
        private byte[] _buffer = new byte[1 << 16];
        private int _begin;
        private int _end;
        private bool _isLast;
        private JsonReaderState _state = new(new JsonReaderOptions { MaxDepth = 8 });

        private readonly HashSet<string> _heeded = new(StringComparer.Ordinal);
        private int _items;

        public string? Currency { get; private set; }

        /// <summary>Reads up to the first item.</summary>
        public void Begin()
        {
            Expect(JsonTokenType.StartObject);
            while (true)
            {
                var (token, name) = Next();
                if (token != JsonTokenType.PropertyName)
                {
                    throw Wrong("It has no “items”.");
                }

                if (name == "items")
                {
                    Expect(JsonTokenType.StartArray);
                    return;
                }

                if (!_heeded.Add(name!))
                {
                    throw Wrong($"“{Reading.Shortened(name!)}” stands in it twice.");
                }

                using var value = Value();
                Heed(name!, value.RootElement);
            }
        }

        /// <summary>The next item, or nothing at the end of the items.</summary>
        public JsonDocument? NextItem()
        {
            var item = Value(endsArray: true);
            if (item is null)
            {
                ReadRest();
                RefuseMore();
            }

            _items++;

            return item;
        }

        /// <summary>What stands behind the items is too late to be heeded, and must at least not say otherwise.</summary>
        private void ReadRest()
        {
            while (Next() is (JsonTokenType.PropertyName, { } name))
            {
                if (name is "format" or "version" or "currency")
                {
                    throw Wrong($"“{name}” has to stand before “items”.");
                }

                if (name == "items")
                {
                    throw Wrong("It has “items” twice; put all of them into one.");
                }

                Value().Dispose();
            }
        }

        /// <summary>Behind the object there may be white space, and nothing else.</summary>
        private void RefuseMore()
        {
            while (true)
            {
                while (_begin < _end)
                {
                    if (_buffer[_begin++] is not ((byte)' ' or (byte)'\t' or (byte)'\r' or (byte)'\n'))
                    {
                        throw Wrong("There is something behind its end.");
                    }
                }

                if (_isLast)
                {
                    return;
                }

                Fill();
            }
        }

        private void Heed(string name, JsonElement value)
        {
            switch (name)
            {
                case "format" when value.ValueKind != JsonValueKind.String || value.GetString() != AccountFile.Format:
                    throw Wrong($"Its “format” is not “{AccountFile.Format}”.");
                case "version"
                    when value.ValueKind != JsonValueKind.Number
                        || !value.TryGetInt32(out var version)
                        || version != AccountFile.Version:
                    throw Wrong($"It is of another version than {AccountFile.Version}.");
                case "currency" when value.ValueKind != JsonValueKind.String:
                    throw Wrong("Its “currency” is no text.");
                case "currency":
                    Currency = value.GetString();
                    break;
            }
        }

        private void Expect(JsonTokenType token)
        {
            if (Next().Token != token)
            {
                throw Wrong("It does not begin as the form does.");
            }
        }

        private (JsonTokenType Token, string? Text) Next() =>
            Read(
                (ref Utf8JsonReader reader) =>
                    reader.Read()
                        ? (
                            true,
                            (
                                reader.TokenType,
                                reader.TokenType == JsonTokenType.PropertyName ? reader.GetString() : null
                            )
                        )
                        : (false, default)
            );

        private JsonDocument Value() => Value(endsArray: false)!;

        private JsonDocument? Value(bool endsArray) =>
            Read(
                (ref Utf8JsonReader reader) =>
                {
                    var ahead = reader;
                    if (!ahead.Read())
                    {
                        return (false, null);
                    }

                    if (endsArray && ahead.TokenType == JsonTokenType.EndArray)
                    {
                        reader = ahead;
                        return (true, (JsonDocument?)null);
                    }

                    if (!JsonDocument.TryParseValue(ref ahead, out var document))
                    {
                        return (false, null);
                    }

                    reader = ahead;
                    return (true, document);
                }
            );

        private delegate (bool Done, T Result) Reading<T>(ref Utf8JsonReader reader);

        private T Read<T>(Reading<T> reading)
        {
            while (true)
            {
                var reader = new Utf8JsonReader(_buffer.AsSpan(_begin, _end - _begin), _isLast, _state);
                try
                {
                    var (done, result) = reading(ref reader);
                    if (done)
                    {
                        _begin += (int)reader.BytesConsumed;
                        _state = reader.CurrentState;
                        return result;
                    }
                }
                catch (Exception error) when (error is JsonException or InvalidOperationException)
                {
                    throw Wrong(Where("It is no JSON, or breaks off"));
                }

                Fill();
            }
        }

        private void Fill()
        {
            if (_isLast)
            {
                throw Wrong(Where("It breaks off"));
            }

            if (_begin > 0)
            {
                _buffer.AsSpan(_begin, _end - _begin).CopyTo(_buffer);
                (_begin, _end) = (0, _end - _begin);
            }

            if (_end == _buffer.Length)
            {
                if (_buffer.Length >= LongestItem)
                {
                    throw Wrong(Where("One of its items is longer than a million characters"));
                }

                Array.Resize(ref _buffer, _buffer.Length * 2);
            }

            var read = content.Read(_buffer, _end, _buffer.Length - _end);
            (_end, _isLast) = (_end + read, read == 0);
        }

        private string Where(string what) => _items == 0 ? $"{what}." : $"{what} after item {_items:N0}.";

        private static IntakeFileException Wrong(string what) =>
            new(
                $"This JSON file is not in the form of an account. {what} The form is described at {AccountFileSchema.Path}."
            );
    }
}
