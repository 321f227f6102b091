using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Checks;
using Halterion.Core.Leading;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Endpoints;

/// <summary>A class under way: its script and the commands so far.</summary>
public sealed record LeadView(Guid Id, Guid ClassId, LeadScript Script, ImmutableArray<LeadCommand> Commands);

/// <param name="Again">Starts from the top with the class as it is now; else a lead that was opened before is taken up.</param>
public sealed record OpenLead(bool Again);

/// <param name="Expected">How many stored commands the sender knows of, besides these.</param>
public sealed record SendCommands(int Expected, ImmutableArray<LeadCommand> Commands);

public sealed record CommandList(ImmutableArray<LeadCommand> Commands);

internal static class LeadEndpoints
{
    public static void MapLeading(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/classes/{id:guid}/lead", Open).ProducesProblem(404).ProducesProblem(422).WithTags("Leading").WithName("openLead");
        routes.MapPost("/api/leads/{id:guid}/commands", Send).ProducesProblem(404).ProducesProblem(409).WithTags("Leading").WithName("sendCommands");
    }

    /// <summary>Opens the lead of a class. One that nobody started yet follows the latest plan.</summary>
    private static Results<Ok<LeadView>, ProblemHttpResult> Open(Guid id, OpenLead wanted, Classes classes, Leads leads, Evaluator evaluator, IOptions<JsonOptions> json)
    {
        if (classes.Find(id) is not { } found)
        {
            return Problems.NotFound("class");
        }

        if (leads.Latest(id) is { } open && !wanted.Again && (open.Commands.Length > 0 || open.Version == found.Version))
        {
            return TypedResults.Ok(View(open, json.Value.SerializerOptions));
        }

        var result = evaluator.Evaluate(found.Revision.Plan);
        if (result.Timeline is not { Spans.IsEmpty: false } timeline)
        {
            return Problems.Faults(result.Faults);
        }

        var script = JsonSerializer.Serialize(LeadScript.Of(result.Plan!, timeline, evaluator.Preferences), json.Value.SerializerOptions);
        return TypedResults.Ok(View(leads.Add(id, found.Version, script), json.Value.SerializerOptions));
    }

    private static Results<Ok<CommandList>, ProblemHttpResult> Send(Guid id, SendCommands sent, Leads leads)
    {
        if (sent.Commands.IsDefault || sent.Commands.Length > 1000)
        {
            return Problems.Bad("/commands", "Too many commands at once.", "at most 1000 commands");
        }

        return leads.Append(id, sent.Expected, sent.Commands) switch
        {
            null => Problems.NotFound("lead"),
            { Taken: true } result => TypedResults.Ok(new CommandList(result.Commands)),
            { } result => Problems.Conflict("Another screen led this class in the meantime.", "commands", result.Commands, StatusCodes.Status409Conflict),
        };
    }

    private static LeadView View(StoredLead lead, JsonSerializerOptions json) =>
        new(lead.Id, lead.ClassId, JsonSerializer.Deserialize<LeadScript>(lead.Script, json)!, lead.Commands);
}
