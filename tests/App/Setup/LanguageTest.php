<?php

declare(strict_types=1);

namespace Tests\App\Setup;

use App\Models\Ledger\Entry;
use App\Models\People\Person;
use App\Work\Outbound\NoticeLetters;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\Delivers;
use VividLedger\Words\Words;

/** Everybody reads the application in the language they chose; what it keeps is the same, whoever made it. */
final class LanguageTest extends AppTestCase
{
    use Delivers;

    public function test_who_chose_german_reads_problems_headlines_values_and_pages_in_german(): void
    {
        $this->as('bram.castellan', 'PUT', 'language', ['language' => 'de'])->assertOk()
            ->assertJson(['language' => 'de', 'spoken' => 'de']);
        $wrong = $this->as('bram.castellan', 'POST', 'records/ticket', ['values' => ['subject' => 'Gnats', 'cost' => 'much']]);
        $wrong->assertStatus(422);
        self::assertContains('Cost nimmt eine Zahl wie 12,50.', array_column((array) $wrong->json('problems'), 'message'));
        $this->as('bram.castellan', 'PUT', 'notices/ways', ['task' => 'pigeon'])->assertStatus(422)
            ->assertJsonPath('problems.0.message', 'Das Feld task hat keinen der Werte, die es haben kann.');
        $this->as('bram.castellan', 'GET', 'records/ticket/999999')->assertNotFound()
            ->assertJsonPath('detail', 'Das gibt es nicht: Ticket T-999999.');

        $ticket = $this->ticket(['cost' => '1240.5', 'due' => '2026-12-24'])['record'];
        $shown = $this->as('bram.castellan', 'GET', "records/ticket/{$ticket['id']}")->json('shown');
        self::assertSame(["1.240,50\u{A0}€", '24. Dez. 2026'], [$shown['cost'], $shown['due']]);
        self::assertSame('€ 1,240.50', $this->as('lena.abara', 'GET', "records/ticket/{$ticket['id']}")->json('shown.cost'));
        $heads = fn (string $handle): array => array_column(
            array_column((array) $this->as($handle, 'GET', "records/ticket/{$ticket['id']}/account")->json('entries'), 'head'), 'rest',
        );
        self::assertContains('hat ihn angelegt', $heads('bram.castellan'));
        self::assertContains('created it', $heads('lena.abara'));
        self::assertSame(Words::OWN, Words::language(), 'between requests it speaks English');
    }

    public function test_the_page_comes_in_the_language_of_the_person_or_else_of_the_browser(): void
    {
        $this->get('/', ['Accept-Language' => 'de-AT,de;q=0.9,en;q=0.5'])->assertSee('<html lang="de">', false);
        $this->get('/', ['Accept-Language' => 'fi,pt;q=0.5'])->assertSee('<html lang="en">', false);
        $this->json('GET', '/api/session', [], ['Accept-Language' => 'de'])->assertStatus(401)
            ->assertJsonPath('detail', 'Melden Sie sich zuerst an.');
        $this->as('bram.castellan', 'PUT', 'language', ['language' => 'fr'])->assertStatus(422);

        $bram = Person::query()->where('handle', 'bram.castellan')->firstOrFail();
        $bram->update(['language' => 'de']);
        $this->actingAs($bram)->get('/', ['Accept-Language' => 'en'])->assertSee('<html lang="de">', false);
        $bram->update(['language' => null]);
        $this->actingAs($bram)->get('/', ['Accept-Language' => 'en'])->assertSee('<html lang="en">', false);
    }

    public function test_what_a_save_keeps_is_the_same_in_every_language(): void
    {
        $this->inForce([
            'name' => 'Hasty', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'], 'lines' => [
                // The cost is empty, and the ledger keeps why it could not be written.
                ['kind' => 'set_fields', 'set' => [['field' => 'subject', 'to' => ['kind' => 'text', 'text' => '{cost}']]]],
                ['kind' => 'give_task', 'to' => ['kind' => 'manager', 'of' => ['kind' => 'owner']], 'title' => 'Look', 'due' => null],
            ],
        ]);
        $customer = $this->customer()['id'];
        $kept = function (?string $language) use ($customer): array {
            Person::query()->where('handle', 'bram.castellan')->update(['language' => $language]);
            $from = (int) Entry::query()->max('id');
            $ticket = $this->ticket(['priority' => 'urgent', 'customer' => $customer])['record'];
            $this->as('bram.castellan', 'PATCH', "records/ticket/{$ticket['id']}", [
                'version' => $ticket['version'], 'values' => ['status' => 'closed'],
            ])->assertOk();

            $text = static fn (Entry $entry): string => (string) preg_replace(
                '/\d+/', '#', $entry->kind.' '.json_encode($entry->data, JSON_UNESCAPED_UNICODE),
            );

            return Entry::query()->where('id', '>', $from)->orderBy('id')->get()->map($text)->all();
        };
        $english = $kept(null);

        self::assertSame($english, $kept('de'));
        self::assertStringContainsString('The text for Subject comes out empty.', implode($english));
    }

    public function test_each_gets_their_letters_in_their_own_language_from_one_worker(): void
    {
        foreach (['lena.abara' => 'de', 'rhea.colt' => 'en'] as $handle => $language) {
            $this->as($handle, 'PUT', 'language', ['language' => $language])->assertOk();
            $this->as($handle, 'PUT', 'notices/ways', ['mention' => 'letter'])->assertOk();
        }
        $this->clockAt('2026-11-24T09:00:00Z');
        $ticket = $this->ticket()['record']['id'];
        $this->as('bram.castellan', 'POST', "records/ticket/{$ticket}/comments", ['text' => '@lena.abara and @rhea.colt, look'])
            ->assertCreated();
        $this->app->make(NoticeLetters::class)->work();
        $letters = DB::table('messages')->where('channel', 'email')->pluck('id', 'person_id');
        $read = fn (string $handle): string => quoted_printable_decode($this->delivered((int) $letters[$this->person($handle)->id]));

        self::assertSame(2, substr_count($read('lena.abara'), 'Sie haben in Ihrem Profil gewählt'), 'in the text and in the HTML');
        self::assertStringNotContainsString('You chose to be written to', $read('lena.abara'));
        self::assertSame(2, substr_count($read('rhea.colt'), 'You chose to be written to'));
    }
}
