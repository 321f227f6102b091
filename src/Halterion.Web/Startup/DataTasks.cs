using Halterion.Store;

namespace Halterion.Web.Startup;

/// <summary>A copy to be made of the data, or to be put in its place.</summary>
internal sealed record DataTask(bool Restores, string File);

internal static class DataTasks
{
    /// <summary>Does it and says what was done, or why not.</summary>
    /// <returns>What the program ends with: 0, or 1 where it could not be done.</returns>
    public static int Run(DataTask task, CommandLine settings, TimeProvider clock)
    {
        try
        {
            if (task.Restores)
            {
                var aside = Copies.Restore(settings.DataFolder, task.File, clock);
                Console.WriteLine($"Restored from {task.File}.{(aside is null ? "" : $" Your previous data is in {aside}.")}");
            }
            else
            {
                Copies.Backup(settings.DataFolder, task.File);
                Console.WriteLine($"Copied to {task.File}.");
            }

            return 0;
        }
        catch (StoreException e)
        {
            Console.Error.WriteLine(e.Message);
            return 1;
        }
    }
}
