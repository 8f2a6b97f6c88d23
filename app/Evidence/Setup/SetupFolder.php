<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Store\DomainError;
use App\Store\RefusedFor;
use VividLedger\Words\Words;

/** A setup as texts by path, from a folder or a ZIP archive, and into one. */
final class SetupFolder
{
    private const MOST_FILES = 5000;

    /** Bytes of one file, and of all. */
    private const LARGEST = 2_000_000;

    private const MOST_BYTES = 50_000_000;

    /** Names that a setup has; whatever else lies in a folder is nobody's business. */
    private const PATH = '~^(?:[^/]+/)?((?:setup|[a-z]+/[A-Za-z0-9._-]+)\.json)$~';

    /** @return array<string, string> texts by path */
    public static function read(string $directory): array
    {
        $texts = [];
        foreach ([...(glob("{$directory}/*.json") ?: []), ...(glob("{$directory}/*/*.json") ?: [])] as $path) {
            $name = substr($path, strlen($directory) + 1);
            if (preg_match(self::PATH, $name) === 1 && is_file($path)) {
                $text = @file_get_contents($path);
                $texts[$name] = $text === false ? throw self::refused(Words::say('{path} cannot be read.', path: $name))
                    : self::checked($name, $text);
            }
        }

        return self::sound($texts);
    }

    /** @param  array<string, string>  $texts */
    public static function write(string $directory, array $texts): void
    {
        foreach ($texts as $path => $text) {
            $at = "{$directory}/{$path}";
            $isWritten = (is_dir(dirname($at)) || @mkdir(dirname($at), 0755, true)) && @file_put_contents($at, $text) === strlen($text);
            $isWritten || throw self::refused(Words::say('{path} cannot be written.', path: $at));
        }
        // What is no longer there is not left lying beside the rest.
        foreach (array_diff(array_keys(self::texts($directory)), array_keys($texts)) as $gone) {
            unlink("{$directory}/{$gone}");
        }
    }

    /** @return array<string, string> */
    public static function unpack(string $file): array
    {
        $archive = new \ZipArchive;
        if ($archive->open($file, \ZipArchive::RDONLY) !== true) {
            throw self::refused(Words::say('This is no ZIP archive of a setup.'));
        }
        $texts = [];
        $bytes = 0;
        for ($index = 0; $index < min($archive->numFiles, self::MOST_FILES); $index++) {
            $name = (string) $archive->getNameIndex($index);
            if (preg_match(self::PATH, $name, $found) !== 1) {
                continue;
            }
            $size = (int) (((array) $archive->statIndex($index))['size'] ?? 0);
            $bytes += $size;
            if ($bytes > self::MOST_BYTES || $size > self::LARGEST) {
                throw self::refused(Words::say('The archive is too large for a setup.'));
            }
            $texts[$found[1]] = self::checked($found[1], (string) $archive->getFromIndex($index));
        }
        $archive->close();

        return self::sound($texts);
    }

    /** @param  array<string, string>  $texts */
    public static function pack(array $texts): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'setup');
        try {
            $archive = new \ZipArchive;
            $archive->open($file, \ZipArchive::OVERWRITE);
            foreach ($texts as $path => $text) {
                $archive->addFromString($path, $text);
            }
            $archive->close();

            return (string) file_get_contents($file);
        } finally {
            unlink($file);
        }
    }

    /** @return array<string, string> */
    private static function texts(string $directory): array
    {
        $paths = array_filter([...(glob("{$directory}/*.json") ?: []), ...(glob("{$directory}/*/*.json") ?: [])], is_file(...));

        return array_fill_keys(array_map(static fn (string $path): string => substr($path, strlen($directory) + 1), $paths), '');
    }

    private static function checked(string $path, string $text): string
    {
        return strlen($text) <= self::LARGEST ? $text : throw self::refused(Words::say('{path} is too large for a setup.', path: $path));
    }

    /**
     * @param  array<string, string>  $texts
     * @return array<string, string>
     */
    private static function sound(array $texts): array
    {
        ksort($texts);
        if (! isset($texts['setup.json'])) {
            throw self::refused(Words::say('There is no setup here: setup.json is missing.'));
        }

        return $texts;
    }

    private static function refused(string $message): DomainError
    {
        return new DomainError('no_setup', $message, RefusedFor::Invalid);
    }
}
