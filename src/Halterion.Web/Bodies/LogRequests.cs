using Halterion.Core;
using Halterion.Core.Logbook;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Web.Bodies;

/// <summary>A log. If-Match carries the version that it was made from; 0: there was none.</summary>
public sealed record SaveLog(ClassLog Log) : IRead<SaveLog>
{
    public static SaveLog? Read(Fields body, Faults faults)
    {
        // Drafts that were left in a browser by an earlier version of the screens carry it here too.
        body.Take("version");
        return body.Object("log", required: true) is { } log && ClassLogReader.Read(log) is { } read ? new SaveLog(read) : null;
    }
}
