<?php

declare(strict_types=1);

namespace Tests\App\Support;

/** Several real processes at the same work. What they commit is cleared away before the next test of another class. */
trait RunsTogether
{
    private const PROCESSES = 8;

    public static function tearDownAfterClass(): void
    {
        // What was committed here must not be found by the tests that come after.
        self::$prepared = false;
        parent::tearDownAfterClass();
    }

    protected function isRolledBack(): bool
    {
        return false;
    }

    /**
     * @param  list<string>  $command  run by PHP in so many processes at once, each told which one it is; each has to end well
     * @return list<string> what each printed
     */
    private function together(array $command): array
    {
        $running = [];
        for ($count = 0; $count < self::PROCESSES; $count++) {
            $running[] = proc_open(
                [PHP_BINARY, ...$command, ...($command[0] === 'artisan' ? [] : [(string) $count])],
                [1 => ['file', $printed[$count] = tempnam(sys_get_temp_dir(), 'together'), 'w'], 2 => ['pipe', 'w']],
                $pipes[$count],
                dirname(__DIR__, 3),
                ['DB_DATABASE' => (string) getenv('DB_DATABASE')] + getenv(),
            );
        }
        $said = [];
        foreach ($running as $index => $process) {
            $errors = stream_get_contents($pipes[$index][2]);
            self::assertSame([0, ''], [proc_close($process), (string) $errors]);
            $said[] = (string) file_get_contents($printed[$index]);
            unlink($printed[$index]);
        }

        return $said;
    }
}
