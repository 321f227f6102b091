using System.Text.Json;

namespace Halterion.Core.PlanFormat;

/// <summary>
/// The ids of one class. All that are written are taken first; what has none gets one by its place, with -2, -3 … behind
/// it while that is taken, so that the same text always reads the same (plan-language.md, "Ids").
/// </summary>
internal sealed class PlaceIds
{
    private const int Longest = 40;
    private readonly HashSet<string> taken = [];
    private readonly HashSet<string> repeated = [];

    public static PlaceIds Of(JsonElement root)
    {
        var ids = new PlaceIds();
        foreach (var (block, at) in Items(root, "blocks", ""))
        {
            ids.Collect(block, at);
        }

        return ids;
    }

    /// <summary>The id of an object: its own, or one by its place.</summary>
    /// <param name="byPlace">Such as <c>b2s3</c>.</param>
    public PlaceId Take(Fields fields, string byPlace)
    {
        if (!fields.Has("id"))
        {
            return new PlaceId(Free(byPlace));
        }

        if (fields.Take("id") is not { } value)
        {
            return default;
        }

        if (value.ValueKind != JsonValueKind.String || JsonText.Of(value) is not { } id || !IsId(id))
        {
            fields.Fault("id", $"This is {Fields.Kind(value)}.", $"1–{Longest} of A–Z, a–z, 0–9, _ and -, but not “class”");
            return default;
        }

        if (repeated.Contains(fields.At))
        {
            fields.Fault("id", $"“{id}” names another part of this class already.", "an id of its own; upper and lower case differ");
        }

        return new PlaceId(id);
    }

    /// <summary>The field that names a thing within its class.</summary>
    /// <param name="byPlace">Its id where it is given none.</param>
    public static Field<TOwner, TPlace> Field<TOwner, TPlace>(
        Func<TOwner, PlaceId> get, Func<TOwner, PlaceId, TOwner> set, Func<TPlace, string> byPlace) => new(
            "id",
            () => new()
            {
                ["type"] = "string",
                ["pattern"] = $"^[A-Za-z0-9_-]{{1,{Longest}}}$",
                ["description"] = "Names it within the class; it stays when things around it move.",
            },
            (context, fields, owner, place) => set(owner, context.IdOf(fields, byPlace(place))),
            owner => get(owner).Value)
        { AlsoAbsent = true };

    public static bool IsId(string text)
    {
        if (text.Length is 0 or > Longest || text == PlaceId.Class.Value)
        {
            return false;
        }

        foreach (var c in text)
        {
            if (!char.IsAsciiLetterOrDigit(c) && c is not ('_' or '-'))
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>An id by place, with a number behind it while it is taken.</summary>
    public string Free(string byPlace)
    {
        var id = byPlace;
        for (var n = 2; !taken.Add(id); n++)
        {
            id = $"{byPlace}-{n}";
        }

        return id;
    }

    /// <summary>In the order of the text, so that of two alike the later one is at fault.</summary>
    private void Collect(JsonElement element, string at)
    {
        if (element.ValueKind != JsonValueKind.Object)
        {
            return;
        }

        foreach (var property in element.EnumerateObject())
        {
            switch (JsonText.NameOf(property))
            {
                case "id" when property.Value.ValueKind == JsonValueKind.String && JsonText.Of(property.Value) is { } id && IsId(id):
                    if (!taken.Add(id))
                    {
                        repeated.Add(at);
                    }

                    break;
                case ("recovery" or "stations" or "waiting" or "options") and var name:
                    foreach (var (item, place) in Items(property.Value, $"{at}/{name}"))
                    {
                        Collect(item, place);
                    }

                    break;
            }
        }
    }

    private static IEnumerable<(JsonElement Item, string At)> Items(JsonElement root, string name, string at) =>
        root.ValueKind == JsonValueKind.Object && root.TryGetProperty(name, out var list) ? Items(list, $"{at}/{name}") : [];

    private static IEnumerable<(JsonElement Item, string At)> Items(JsonElement list, string at)
    {
        if (list.ValueKind != JsonValueKind.Array)
        {
            yield break;
        }

        var i = 0;
        foreach (var item in list.EnumerateArray())
        {
            yield return (item, $"{at}/{i++}");
        }
    }
}
