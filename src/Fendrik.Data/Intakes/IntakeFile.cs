using Dapper;
using Fendrik.Data.Tables;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>The file of an intake, kept in the database in pieces so that any server can read it again.</summary>
public static class IntakeFile
{
    private const int PartSize = 1 << 20;

    /// <summary>Largest file taken: 200 MiB.</summary>
    public const long LargestFile = 200L << 20;

    /// <summary>Stores a stream and answers its length. Throws when it is longer than <see cref="LargestFile"/>.</summary>
    public static async Task<long> StoreAsync(
        NpgsqlConnection connection,
        long intakeId,
        Stream content,
        CancellationToken cancellation
    )
    {
        var buffer = new byte[PartSize];
        long total = 0;
        for (var part = 0; ; part++)
        {
            var filled = await content.ReadAtLeastAsync(buffer, PartSize, throwOnEndOfStream: false, cancellation);
            total += filled;
            if (total > LargestFile)
            {
                throw new IntakeFileException(
                    "The file is larger than 200 MB. Split it and bring in the parts one by one."
                );
            }

            if (filled > 0)
            {
                await connection.ExecuteAsync(
                    new CommandDefinition(
                        "insert into intake_file_part (intake_id, part, bytes) values (@intakeId, @part, @bytes)",
                        new
                        {
                            intakeId,
                            part,
                            bytes = buffer.AsSpan(0, filled).ToArray(),
                        },
                        cancellationToken: cancellation
                    )
                );
            }

            if (filled < PartSize)
            {
                return total;
            }
        }
    }

    /// <summary>Reads a stored file from its beginning, one piece in memory at a time.</summary>
    public static Stream Open(NpgsqlConnection connection, long intakeId) => new PartStream(connection, intakeId);

    private sealed class PartStream(NpgsqlConnection connection, long intakeId) : ForwardOnlyStream
    {
        private byte[] _bytes = [];
        private int _at;
        private int _part;

        public override int Read(byte[] buffer, int offset, int count)
        {
            if (_at == _bytes.Length)
            {
                _bytes =
                    connection.QueryFirstOrDefault<byte[]>(
                        "select bytes from intake_file_part where intake_id = @intakeId and part = @part",
                        new { intakeId, part = _part++ }
                    ) ?? [];
                _at = 0;
            }

            var length = Math.Min(count, _bytes.Length - _at);
            Array.Copy(_bytes, _at, buffer, offset, length);
            _at += length;
            return length;
        }
    }
}
