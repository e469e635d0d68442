namespace Fendrik.Server.Api;

/// <summary>An answer that is a file of comma-separated values (RFC 4180), as spreadsheets open it.</summary>
internal static class CsvAnswer
{
    /// <summary>Begins it.</summary>
    /// <param name="context">The request.</param>
    /// <param name="name">Name of the file.</param>
    public static StreamWriter Begin(HttpContext context, string name)
    {
        context.Response.ContentType = "text/csv; charset=utf-8";
        context.Response.Headers.ContentDisposition = $"attachment; filename=\"{name}\"";
        return new StreamWriter(
            context.Response.Body,
            new System.Text.UTF8Encoding(encoderShouldEmitUTF8Identifier: true)
        );
    }
}
