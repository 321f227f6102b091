namespace Halterion.Web.Endpoints;

internal static class Bodies
{
    /// <summary>The whole body as bytes. The server's own limit on bodies keeps it small.</summary>
    public static async Task<ReadOnlyMemory<byte>> ReadBytesAsync(this HttpRequest request, CancellationToken cancel)
    {
        using var body = new MemoryStream((int)Math.Min(request.ContentLength ?? 4096, 1 << 20));
        await request.Body.CopyToAsync(body, cancel);
        return body.GetBuffer().AsMemory(0, (int)body.Length);
    }
}
