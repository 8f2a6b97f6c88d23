<?php

declare(strict_types=1);

namespace Tests\App\Slips;

use App\Models\Outbound\StoredMessage;
use App\Models\Slips\SlipTurnRow;
use App\Store\Slips\SlipLink;
use Illuminate\Support\Arr;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\Delivers;
use VividLedger\Schema\FieldType;

/** Whoever is outside reads what is ours of a slip in their own language: the letter, the page, and what is wrong. */
final class SlipLanguageTest extends AppTestCase
{
    use Delivers;

    public function test_a_contact_reads_german_from_the_letter_to_the_thanks(): void
    {
        $token = $this->asked('de');
        $arrived = quoted_printable_decode($this->delivered((int) StoredMessage::query()->max('id')));
        self::assertSame(2, substr_count($arrived, 'Hier antworten'), 'in the text and in the HTML');
        self::assertSame(2, substr_count($arrived, 'Der Link ist nur für Sie. Er braucht kein Passwort.'));

        $this->get("/slip/{$token}")->assertOk()->assertSee('<html lang="de">', false)->assertSee('Antwort absenden')
            ->assertSee('wenn Sie mögen')->assertSee('von 1 bis 5')->assertSee('Gemerkt. Sie können')
            // What the company wrote stays as it is.
            ->assertSee('How good was it?');
        $this->post("/slip/{$token}", ['answers' => ['', 'many']])->assertStatus(422)
            ->assertSee('Etwas muss anders beantwortet werden.')->assertSee('Das muss beantwortet werden.')
            ->assertSee('Schreiben Sie eine Zahl, etwa 12,50.')->assertDontSee('This has to be');
        $this->post("/slip/{$token}", ['answers' => ['9', '']])->assertStatus(422)->assertSee('in den Grenzen');
        $this->post("/slip/{$token}", ['answers' => ['5', '2,5']])->assertRedirect();
        $this->get("/slip/{$token}?again=1")->assertSee('value="2,5', false);
        $this->get("/slip/{$token}")->assertSee('Ihre Antwort ist angekommen.')->assertDontSee('Your answer');
    }

    public function test_others_read_english_and_who_is_not_known_the_language_of_their_browser(): void
    {
        $this->get('/slip/'.$this->asked('fi'))->assertOk()->assertSee('Send the answer')->assertSee('<html lang="en">', false);
        $nowhere = '/slip/'.str_repeat('b', 43);
        $this->get($nowhere, ['Accept-Language' => 'de-AT,de;q=0.9,en;q=0.5'])->assertNotFound()->assertSee('führt nirgendwohin');
        $this->get($nowhere, ['Accept-Language' => 'en'])->assertNotFound()->assertSee('leads nowhere');
        $this->get('/unsubscribe/forged.link', ['Accept-Language' => 'de'])->assertNotFound()->assertSee('Dieser Link führt nirgendwohin');
        $this->get('/unsubscribe/forged.link', ['Accept-Language' => 'pt'])->assertNotFound()->assertSee('This link leads nowhere');
    }

    public function test_german_is_whole(): void
    {
        $flat = static fn (string $language): array => Arr::dot([
            'slip' => require lang_path("{$language}/slip.php"), 'letters' => require lang_path("{$language}/letters.php"),
        ]);
        [$english, $german] = [$flat('en'), $flat('de')];
        self::assertSame([], array_keys(array_diff_key($english, $german)));
        foreach ($english as $key => $said) {
            preg_match_all('/:\w+/', $said, $wanted);
            preg_match_all('/:\w+/', $german[$key], $has);
            self::assertEqualsCanonicalizing($wanted[0], $has[0], $key);
            self::assertTrue($said !== $german[$key] || mb_strlen($said) < 15, "{$key} is said in German");
        }
        foreach (FieldType::cases() as $type) {
            if (! in_array($type, [FieldType::Person, FieldType::Reference], true)) {
                self::assertArrayHasKey("slip.wrong.wrong_type.{$type->value}", $german);
            }
        }
    }

    /** @return string the token of a slip that a contact of that language is asked by */
    private function asked(string $language): string
    {
        $this->inForce([
            'name' => "Ask {$language}", 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [[
                'kind' => 'slip', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'How was it?',
                'body' => '<p>Tell us.</p>',
                'asks' => [
                    ['kind' => 'number', 'label' => 'How good was it?', 'least' => 1, 'most' => 5, 'needed' => true],
                    ['kind' => 'field', 'path' => 'hours', 'label' => 'How many hours?'],
                ],
            ]],
        ]);
        $customer = $this->customer()['id'];
        $contact = $this->created('contact', [
            'name' => 'Marit Solheim', 'customer' => $customer, 'email' => 'marit@brine.example', 'language' => $language,
        ])['record']['id'];
        $this->ticket(['customer' => $customer, 'contact' => $contact]);

        return SlipLink::token(SlipTurnRow::query()->latest('id')->firstOrFail());
    }
}
