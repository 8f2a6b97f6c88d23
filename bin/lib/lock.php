<?php

declare(strict_types=1);

/*
 * The committed composer.lock holds versions and checksums but no download addresses: those belong to the registry of
 * the machine that installs. See docs/decisions/composer-lock.md.
 *
 *   php bin/lib/lock.php pins composer.lock              prints "--with name:version" for every locked package
 *   php bin/lib/lock.php strip local.lock > composer.lock
 *   php bin/lib/lock.php same composer.lock local.lock   exits 0 when both lock the same versions and checksums
 */

/** @return array<string, mixed> the lock without addresses */
function stripped(string $file): array
{
    $lock = json_decode((string) file_get_contents($file), true, 512, JSON_THROW_ON_ERROR);
    foreach (['packages', 'packages-dev'] as $group) {
        foreach ($lock[$group] as &$package) {
            if (($package['dist']['type'] ?? '') !== 'path') {
                unset($package['dist']['url'], $package['dist']['mirrors']);
            }
            unset(
                $package['source'],
                $package['support'],
                $package['funding'],
                $package['homepage'],
                $package['authors'],
                $package['notification-url'],
                $package['time'],
            );
        }
    }
    unset($lock['plugin-api-version']);

    return $lock;
}

[, $verb, $file] = $argv + [null, '', ''];
if ($verb === 'pins') {
    $lock = stripped($file);
    foreach ([...$lock['packages'], ...$lock['packages-dev']] as $package) {
        echo '--with ', $package['name'], ':', $package['version'], "\n";
    }
} elseif ($verb === 'strip') {
    echo json_encode(stripped($file), JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR), "\n";
} elseif ($verb === 'same') {
    $facts = static function (string $file): array {
        $facts = [];
        $lock = stripped($file);
        foreach ([...$lock['packages'], ...$lock['packages-dev']] as $package) {
            $facts[$package['name']] = [$package['version'], $package['dist']['shasum'] ?? ''];
        }
        ksort($facts);

        return $facts;
    };
    exit(is_file($argv[3]) && $facts($file) === $facts($argv[3]) ? 0 : 1);
} else {
    fwrite(STDERR, "usage: lock.php pins|strip|same FILE [FILE]\n");
    exit(2);
}
