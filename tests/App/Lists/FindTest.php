<?php

declare(strict_types=1);

namespace Tests\App\Lists;

use App\Models\Records\FoundText;
use App\Store\Access\AccessScope;
use App\Store\Lists\FoundTexts;
use App\Store\Lists\RecordSearch;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;

/** What is called how is found: by numbers, by words and their beginnings, and nearly; of few records and of many. */
final class FindTest extends AppTestCase
{
    private bool $isCommitted = false;

    /** A full-text index knows only what is committed. */
    protected function isRolledBack(): bool
    {
        return ! $this->isCommitted;
    }

    /** @return iterable<string, array{bool}> */
    public static function sizes(): iterable
    {
        yield 'few records' => [false];
        yield 'many records' => [true];
    }

    #[DataProvider('sizes')]
    public function test_records_are_found_by_numbers_words_and_nearly(bool $areMany): void
    {
        if ($areMany) {
            DB::rollBack();
            $this->isCommitted = true;
        }
        $this->app->bind(RecordSearch::class,
            fn (): RecordSearch => new RecordSearch($this->app->make(AccessScope::class), $areMany ? 1 : PHP_INT_MAX));
        try {
            $this->story();
        } finally {
            if ($areMany) {
                foreach (['records_ticket', 'records_customer', 'records_contact', 'found_texts', 'found_words',
                    'field_history'] as $table) {
                    DB::table($table)->delete();
                }
                // Other stories start from an empty ledger.
                self::$prepared = false;
            }
        }
    }

    public function test_a_word_with_which_very_many_begin_is_found_all_the_same(): void
    {
        DB::statement("INSERT INTO found_texts (record_type, record_id, title, body, is_new) SELECT 'ticket', 1000000 + seq, "
            ."CONCAT('Palm ', seq), '', 0 FROM seq_1_to_45000");
        $this->app->bind(RecordSearch::class, fn (): RecordSearch => new RecordSearch($this->app->make(AccessScope::class)));
        $found = $this->as('ines.okafor', 'GET', 'find?text=palm')->assertOk()->json('records');
        self::assertSame('Palm 1', $found[0]['title']);
        self::assertGreaterThan(5, count($found));
    }

    private function story(): void
    {
        $hotel = $this->customer('Zephyr & Barrow Hotel');
        $this->customer('Hotel Zephyrus');
        $this->customer('Barrow Clinic');
        $contact = $this->created('contact', ['name' => 'Marit Solheim', 'customer' => $hotel['id'], 'email' => 'marit@zephyr.example']);
        $ticket = $this->ticket(['subject' => 'Ficus wilting in the lobby', 'customer' => $hotel['id']])['record'];
        $this->ticket(['subject' => 'Lobby of the ficus', 'customer' => $hotel['id']]);
        while ($this->app->make(FoundTexts::class)->takeUpWords() > 0) {
        }

        self::assertSame(['Zephyr & Barrow Hotel'], $this->found('zephyr barrow'));
        self::assertEqualsCanonicalizing(['Zephyr & Barrow Hotel', 'Hotel Zephyrus', 'Marit Solheim'], $this->found('ZEPHYR'));
        self::assertSame('Zephyr & Barrow Hotel', $this->found('Zephyr')[0], 'what begins so comes first');
        self::assertSame(['Marit Solheim'], $this->found('marit@zephyr.example'));
        self::assertSame([$ticket['title']], $this->found($ticket['number']));
        self::assertEqualsCanonicalizing(['Ficus wilting in the lobby', 'Lobby of the ficus'], $this->found('fic lobby'));
        self::assertSame([], $this->found('+-*()"~<>@'), 'signs of the index are no words');

        $nearly = $this->as('ines.okafor', 'GET', 'find?text=zepyhr+hotle')->assertOk()->json();
        self::assertSame('zephyr hotel', $nearly['nearly']);
        self::assertContains('Zephyr & Barrow Hotel', array_column($nearly['records'], 'title'));
        $nothing = $this->as('ines.okafor', 'GET', 'find?text=qqqqqq')->assertOk()->json();
        self::assertSame([[], ''], [$nothing['records'], $nothing['nearly']]);

        // It follows what is changed and deleted.
        $this->change($ticket, ['subject' => 'Monstera is fine']);
        self::assertSame([], $this->found('wilting'));
        self::assertSame(['Monstera is fine'], $this->found('monst'));
        $this->as('ines.okafor', 'DELETE', "records/contact/{$contact['record']['id']}?version=1")->assertOk();
        self::assertSame([], $this->found('marit'));
        $rows = $this->as('ines.okafor', 'GET', 'records/ticket?search=monst+fine')->assertOk()->json('rows');
        self::assertSame(['Monstera is fine'], array_column($rows, 'title'), 'a list is searched by the same words');
        self::assertSame(DB::table('records_ticket')->count() + DB::table('records_customer')->count(), FoundText::query()->count());
    }

    /** @return list<string> titles */
    private function found(string $text): array
    {
        return array_column($this->as('ines.okafor', 'GET', 'find?text='.rawurlencode($text))->assertOk()->json('records'), 'title');
    }
}
