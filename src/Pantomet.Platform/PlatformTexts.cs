namespace Pantomet.Platform;

/// <summary>The sentences about files and folders of the machine. This project lies under the core, so they stand here.</summary>
internal static class PlatformTexts
{
    internal static string DoesNotExist(string name) => $"\"{name}\" does not exist.";

    internal static string CannotBeOpenedPermissionDenied(string name) => $"\"{name}\" cannot be opened: permission denied.";

    internal static string CannotBeOpened(string name, string error) => $"\"{name}\" cannot be opened: {error}.";

    internal const string ThePathNamesNoFile = "The path names no file.";

    internal static string IsOutsideOfItsFolder(string path) => $"\"{path}\" is outside of its folder.";

    internal static string IsALinkOrIsNo(string name) =>
        $"\"{name}\" is a link, or is no longer a folder. Links are not followed, because they can lead out of the allowed folder.";

    internal static string IsNotARegularFileBut(string name) =>
        $"\"{name}\" is not a regular file but a pipe, a socket or a device. It is not opened.";

    internal static string TheFileIsLargerThanBytes(long most) => $"The file is larger than {most} bytes and is not read.";
}
