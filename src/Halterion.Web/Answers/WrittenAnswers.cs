using System.Runtime.CompilerServices;
using System.Text.Json;
using Halterion.Core.Planning;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Answers;

/// <summary>Evaluations as JSON, written once for as long as they are remembered: several screens ask for the same one.</summary>
internal sealed class WrittenAnswers(IOptions<JsonOptions> json)
{
    private readonly ConditionalWeakTable<Evaluation, byte[]> written = [];

    public byte[] Of(Evaluation evaluation) =>
        written.GetValue(evaluation, e => JsonSerializer.SerializeToUtf8Bytes(e, json.Value.SerializerOptions));
}
