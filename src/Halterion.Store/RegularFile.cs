using System.Runtime.InteropServices;

namespace Halterion.Store;

/// <summary>
/// Files as such: no links, pipes, sockets or devices. Reading one of those can lead out of a folder, or never end.
/// </summary>
public static class RegularFile
{
    private const int CurrentFolder = -100;
    private const int NoFollow = 0x100;
    private const uint TypeOnly = 1;

    /// <summary>Where the kernel puts the mode; the layout is the same on every machine (statx(2)).</summary>
    private const int ModeAt = 28;
    private const int TypeMask = 0xF000;
    private const int Regular = 0x8000;

    /// <summary>Whether there is a file of that name, and it is nothing else. Names that lead elsewhere are not followed.</summary>
    public static bool Is(string path)
    {
        var info = new FileInfo(path);
        if (!info.Exists || info.LinkTarget is not null || info.Attributes.HasFlag(FileAttributes.Directory))
        {
            return false;
        }

        if (!OperatingSystem.IsLinux())
        {
            return true;
        }

        var seen = new byte[256];
        return StatX(CurrentFolder, path, NoFollow, TypeOnly, seen) == 0 && (BitConverter.ToUInt16(seen, ModeAt) & TypeMask) == Regular;
    }

    [DllImport("libc", EntryPoint = "statx")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int StatX(int folder, [MarshalAs(UnmanagedType.LPUTF8Str)] string path, int flags, uint mask, [Out] byte[] into);
}
