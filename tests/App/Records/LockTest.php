<?php

declare(strict_types=1);

namespace Tests\App\Records;

use PHPUnit\Framework\TestCase;

/** The committed lock names versions and checksums, and nobody's registry (docs/decisions/composer-lock.md). */
final class LockTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/vivid-ledger-lock-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
        $this->write('local', '1.2.3', 'https://registry.example/a.zip', 'abc');
    }

    protected function tearDown(): void
    {
        array_map(unlink(...), glob("{$this->folder}/*") ?: []);
        rmdir($this->folder);
    }

    public function test_addresses_are_taken_out_and_the_rest_stays(): void
    {
        [$code, $stripped] = $this->call('strip', 'local');
        self::assertSame(0, $code);
        self::assertStringNotContainsString('://', $stripped);
        self::assertSame(
            ['name' => 'a/b', 'version' => '1.2.3', 'dist' => ['type' => 'zip', 'shasum' => 'abc']],
            json_decode($stripped, true)['packages'][0],
        );
        self::assertSame("--with a/b:1.2.3\n", $this->call('pins', 'local')[1]);
    }

    public function test_another_version_or_checksum_is_another_lock(): void
    {
        $this->write('elsewhere', '1.2.3', 'https://other.example/a.zip', 'abc');
        $this->write('newer', '1.2.4', 'https://registry.example/a.zip', 'abc');
        $this->write('forged', '1.2.3', 'https://registry.example/a.zip', 'xyz');

        self::assertSame(
            [0, 1, 1, 1],
            array_map(fn (string $other): int => $this->call('same', 'local', $other)[0], ['elsewhere', 'newer', 'forged', 'missing']),
        );
        self::assertSame(2, $this->call('nonsense', 'local')[0]);
    }

    public function test_the_committed_locks_name_no_registry(): void
    {
        $root = dirname(__DIR__, 3);
        $lock = json_decode((string) file_get_contents("{$root}/composer.lock"), true, 512, JSON_THROW_ON_ERROR);
        foreach ([...$lock['packages'], ...$lock['packages-dev']] as $package) {
            self::assertStringNotContainsString('://', (string) json_encode($package['dist'], JSON_UNESCAPED_SLASHES), $package['name']);
        }
        self::assertStringNotContainsString('"resolved":', (string) file_get_contents("{$root}/package-lock.json"));
    }

    private function write(string $name, string $version, string $url, string $sum): void
    {
        file_put_contents(
            "{$this->folder}/{$name}",
            json_encode([
                'packages' => [
                    [
                        'name' => 'a/b', 'version' => $version, 'dist' => ['type' => 'zip', 'url' => $url, 'shasum' => $sum],
                        'support' => ['source' => 'https://x.example'],
                    ],
                ],
                'packages-dev' => [],
            ]),
        );
    }

    /** @return array{int, string} exit code and output */
    private function call(string $verb, string ...$files): array
    {
        exec(
            PHP_BINARY.' '.dirname(__DIR__, 3)."/bin/lib/lock.php {$verb} ".implode(
                ' ',
                array_map(fn (string $file): string => "{$this->folder}/{$file}", $files),
            ).' 2>/dev/null',
            $output,
            $code,
        );

        return [$code, implode("\n", $output).($output === [] ? '' : "\n")];
    }
}
