<?php

declare(strict_types=1);

namespace Tests\App\Lists;

use App\Store\DomainError;
use App\Store\Rules\RuleFile;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\Core\Support\WholeRange;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Text\RuleText;

/**
 * Everything a rule can say, over every record type of the demo company: kept, exported, typed, put in force, rehearsed and found again.
 */
final class WholeRangeTest extends AppTestCase
{
    public function test_it_fits_the_published_schema_and_has_words(): void
    {
        $files = $this->app->make(RuleFile::class);
        $reader = $this->app->make(RuleReader::class);
        $text = $this->app->make(RuleText::class);
        foreach ($this->files(240) as $seed => $file) {
            $page = $reader->read($file);
            self::assertSame(
                [],
                array_map(static fn ($problem): string => "{$problem->at} {$problem->message}", $page->problems),
                "seed {$seed}: ".json_encode($file),
            );
            try {
                self::assertSame($file, $files->read($files->write($file)), "seed {$seed}");
            } catch (DomainError $refused) {
                self::fail("seed {$seed}: ".json_encode($refused->problems).$files->write($file));
            }
            $printed = $text->print($file);
            $read = $text->parse($printed);
            self::assertSame(json_encode(RuleText::plain($file)), json_encode(RuleText::plain($read->file)), "seed {$seed}: {$printed}");
            self::assertStringNotContainsString('⟦', $printed, "seed {$seed}");
        }
    }

    public function test_it_is_written_put_in_force_exported_and_taken_back_in(): void
    {
        foreach ($this->files(30) as $seed => $file) {
            $id = $this->inForce($file);
            $exported = (string) $this->as('ines.okafor', 'GET', "rules/{$id}/file")->assertOk()->getContent();
            self::assertSame($file, array_diff_key(json_decode($exported, true), ['$schema' => true, 'format' => true]), "seed {$seed}");
            $again = $this->as('ines.okafor', 'POST', 'rules/import', ['text' => $exported])->assertCreated()->json();
            self::assertSame(
                $this->as('ines.okafor', 'GET', "rules/{$id}")->json('reading.rows'),
                $again['reading']['rows'],
                "seed {$seed}",
            );
            $this->as('ines.okafor', 'POST', 'remarks', ['file' => $file, 'rule' => $id])->assertOk();
        }
        self::assertSame(30, DB::table('rules')->where('status', 'in_force')->count());
    }

    /** @return iterable<int, array<string, mixed>> by seed */
    private function files(int $count): iterable
    {
        $schema = $this->app->make(SchemaStore::class)->schema();
        $ids = $this->oneOfEach();
        $types = array_keys($schema->types);
        for ($seed = 1; $seed <= $count; $seed++) {
            $range = new WholeRange(
                $seed,
                $schema,
                $this->app->make(\VividLedger\House\Directory::class),
                new \DateTimeZone('Europe/Berlin'),
                ['ines.okafor', 'tomas.weld'],
                $ids,
            );
            yield $seed => $range->rule("Rule {$seed}", $types[$seed % count($types)]);
        }
    }
}
