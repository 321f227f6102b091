using System.Collections.Immutable;
using Halterion.Store;
using Halterion.Web.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>Words that the instructor recorded, for devices without a voice of their own.</summary>
internal static class ClipEndpoints
{
    private const int LongestWord = 40;

    /// <summary>A word of two seconds takes far less.</summary>
    private const int LargestSound = 400_000;

    public static void MapClips(this IEndpointRouteBuilder routes)
    {
        var clips = routes.MapGroup("/api/clips").WithTags("Clips");
        clips.MapGet("/", Ok<ImmutableArray<string>> (Clips store) => TypedResults.Ok(store.Words())).WithName("clips");
        clips.MapGet("/{word}", Get).ProducesProblem(404).WithName("clip");
        clips.MapPut("/{word}", KeepAsync).ProducesProblem(422).WithName("keepClip");
        clips.MapDelete("/{word}", Remove).ProducesProblem(404).WithName("removeClip");
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> Get(string word, Clips store) =>
        store.Find(word) is { } clip ? TypedResults.File(clip.Sound, clip.Type) : Problems.NotFound("clip");

    private static async Task<Results<NoContent, ProblemHttpResult>> KeepAsync(string word, HttpRequest request, Clips store)
    {
        // What is given back is played by a browser as what it was said to be: nothing but sound.
        var type = request.ContentType?.Split(';')[0].Trim() ?? "";
        if (word.Length > LongestWord || !type.StartsWith("audio/", StringComparison.OrdinalIgnoreCase) || type.Length > LongestWord)
        {
            return Problems.Bad("", "This is not a word that can be recorded.", "a sound, with its type as the content type, such "
                + "as audio/webm");
        }

        using var sound = new MemoryStream();
        await request.Body.CopyToAsync(sound, request.HttpContext.RequestAborted);
        if (sound.Length is 0 or > LargestSound)
        {
            return Problems.Bad("", sound.Length == 0 ? "This recording is empty." : "This recording is too long.", $"1–{LargestSound} "
                + $"bytes: a word or two");
        }

        return store.Keep(word, type, sound.ToArray()) ? TypedResults.NoContent()
            : Problems.Bad("", $"There are {Clips.Most} recordings already.", "fewer recordings: remove some that are not said any more");
    }

    private static Results<NoContent, ProblemHttpResult> Remove(string word, Clips store) =>
        store.Remove(word) ? TypedResults.NoContent() : Problems.NotFound("clip");
}
