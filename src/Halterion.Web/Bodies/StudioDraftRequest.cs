using System.Text.Json;
using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Plans;

namespace Halterion.Web.Bodies;

/// <summary>Asks for classes for an evening of this studio: its people, kit, room and past classes are put in by the server.</summary>
/// <param name="Brief">The wishes; of a class that stands only the wishes that the class does not answer.</param>
/// <param name="Booking">When and for how many; not said: that of the session.</param>
/// <param name="Session">Whose people and room; not said: those that a new class would have.</param>
/// <param name="WithoutKit">Nothing is fetched.</param>
/// <param name="NotLastTime">Not what was done in the last two classes.</param>
/// <param name="Vary">Another version of a class that stands.</param>
/// <param name="Class">That class.</param>
/// <param name="Pinned">What of it is to stay: ids of blocks, stations or options.</param>
public sealed record StudioDraftRequest(
    DraftRequest Brief, Booking? Booking = null, Guid? Session = null, bool? WithoutKit = null, bool? NotLastTime = null,
    DraftVariation? Vary = null, JsonElement? Class = null, IReadOnlyList<PlaceId>? Pinned = null) : IRead<StudioDraftRequest>
{
    public static StudioDraftRequest? Read(Fields body, Faults faults)
    {
        var wishes = body.Object("brief", required: true);
        var brief = wishes is null ? null : DraftRequest.Read(wishes, faults);
        wishes?.Close("a brief");
        var vary = body.Choice<DraftVariation>("vary");
        var file = body.Has("class") ? body.Json("class", faults) : null;
        if (vary is not null && file is null && !body.Has("class"))
        {
            body.Fault("class", "A version of which class?", "the class that is to be varied");
        }

        var booking = body.Has("booking") ? BookingReader.Read(body, faults) : null;
        var (session, without, other) = (body.Id("session"), body.Flag("withoutKit"), body.Flag("notLastTime"));
        var pinned = DraftRequest.PinnedOf(body);
        return brief is null ? null : new StudioDraftRequest(brief, booking, session, without, other, vary, file, pinned);
    }
}
