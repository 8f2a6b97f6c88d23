<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverKeys as Key;
use Facebook\WebDriver\WebDriverSelect;
use StandardWebhooks\Webhook;
use Tests\Browser\Support\BrowserTestCase;

/** Slips and calls from the rule to what follows: a crew answers on a phone, silence is passed on, finance and then the books. */
final class SlipTest extends BrowserTestCase
{
    public function test_a_crew_answers_on_a_phone_and_the_record_moves_on(): void
    {
        $this->signIn('ines.okafor');
        $name = 'Reed '.bin2hex(random_bytes(4));
        $this->open('/setup/slips');
        $this->press('New');
        $this->see('input[aria-label=Name]')->sendKeys("Slip {$name}");
        $this->see('select[aria-label=About]')->sendKeys('Visits');
        $this->see('.line', '“Is it done?”');
        $this->word('+ question');
        $this->choose('a few words');
        $this->word('which question?');
        $this->see('.floating input:focus');
        $this->keys('Why not?', Key::ENTER);
        $this->see('.line', '“Why not?” in words');
        $this->word('+ only if');
        $this->choose('“Is it done?” is “Not done”');
        $this->see('.line', '“Why not?” in words, only if “Is it done?” is “Not done”');
        $this->see('#subject')->sendKeys("Job {$name}");
        $this->see('[contenteditable=true]')->sendKeys('Please see to it.');
        $this->press('Look at the page');
        $this->see('iframe[title="The page as it would look"]');
        $this->press('Desk', '.segments button');
        $this->press('Save the slip');
        $this->see('[role=status]', 'Version 1 of');
        $text = "When a Visit is created\nOnly if Purpose contains \"{$name}\"\nFires once per visit\n"
            ."Send the Partner the reply slip \"Slip {$name}\", answered within 2 days, and then pass it on to the next Partner, "
            ."by Visits done, known as \"crew\"\nOnce \"crew\" is answered with \"Done\": Set Status to Done\n"
            ."Once \"crew\" is answered with \"Not done\": Comment \"Not done: {slip.answers}\"\n";
        $this->begin($name, $text);
        $first = $this->partner("{$name} One");
        $this->partner("{$name} Two");
        $visit = $this->visit($name, $first);
        $this->open("/records/visit/{$visit}");
        $this->see('[aria-label="Where the slip stands"] .pencilled', "{$name} One has it");
        $old = $this->link("Job {$name}");
        $this->press('Pass on now');
        $this->see('[role=status]', 'It has gone to the next.');
        $this->see('[aria-label="Where the slip stands"]', "{$name} One did not answer; it went to the next");

        $link = $this->link("Job {$name}", $old);
        $this->signOut();
        $this->browser->manage()->window()->setSize(new WebDriverDimension(390, 844));
        $this->open($old);
        $this->see('.why', 'Somebody else has been asked meanwhile');
        $this->open($link);
        $this->see('h1', "Job {$name}");
        $this->notSee('textarea');
        $this->see('label', 'Not done')->click();
        $this->see('textarea')->sendKeys('The door was locked');
        $this->see('label', 'Done')->click();
        $this->notSee('textarea');
        $width = $this->browser->executeScript('return document.documentElement.scrollWidth');
        self::assertLessThanOrEqual(390, $width, 'nothing is wider than the phone');
        $this->press('Send the answer');
        $this->see('.why', 'Your answer has arrived');
        $this->see('dd', 'Done');
        $this->browser->manage()->window()->setSize(new WebDriverDimension(1280, 800));
        $this->signIn('ines.okafor');
        $this->open("/records/visit/{$visit}");
        $this->see('.stamp', 'Done');
        $this->see('.line', 'answered a reply slip');
        $this->open('/slips');
        $this->press('Everything', '.segments button');
        $this->see('[data-slip]', "Job {$name}");
    }

    public function test_finance_gives_two_numbers_and_the_customer_goes_into_the_books(): void
    {
        $this->signIn('ines.okafor');
        $name = 'Sedge '.bin2hex(random_bytes(4));
        $text = "When a Customer is created\nOnly if Name contains \"{$name}\"\nFires once per customer\n"
            ."Send Ines Okafor the reply slip \"Two numbers for bookkeeping\", known as \"numbers\"\n"
            .'Once "numbers" is answered: Call "Accounting: new customer" with Name as "name", Tax number as "tax_number" and Debtor '
            ."number as \"debtor\"; keep \"number\" in Account number, known as \"books\"\n";
        $this->begin($name, $text);
        $customer = $this->api('POST', 'records/customer', ['values' => ['name' => $name, 'status' => 'active']])['record']['id'];
        $this->open('/');
        $this->see('a', "Two numbers for {$name}");
        $this->see('.spine a[href="/slips"] .count');
        $slip = $this->api('GET', 'slips?box=mine')['slips'][0]['id'];
        $this->open("/slip/mine/{$slip}");
        $this->see('label', 'Tax number');
        $this->see('#q0')->sendKeys('DE12');
        $this->press('Send the answer');
        $this->see('.problem', 'This has to be answered.');
        $this->see('#q1')->sendKeys('D-1');
        $this->press('Send the answer');
        $this->see('.why', 'Your answer has arrived');

        $this->open('/setup/systems');
        $this->see('.leaf.left button', 'Accounting: new customer')->click();
        $this->see('.leaf.right button', $name)->click();
        $this->see('pre', 'is no tax number');
        $this->browser->executeScript(
            'const box = document.querySelector("[id^=payload-]"); box.value = box.value.replace("DE12", arguments[0]); '
                .'box.dispatchEvent(new Event("input", { bubbles: true }));',
            ['DE'.random_int(100_000_000, 999_999_999)],
        );
        $this->press('Send the corrected one');
        $this->see('[role=status]', 'It is on its way again.');
        $this->open("/records/customer/{$customer}");
        $this->until(
            fn (): bool => str_starts_with((string) $this->api('GET', "records/customer/{$customer}")['values']['account_number'], 'K-'),
            'for the number of the books',
        );
        $this->open('/setup/in-step');
        $this->see('.leaf', $name);
        $this->press('Use theirs');
        $this->see('[role=status]', 'Corrected.');
        $this->notSee('.leaf', $name);
    }

    public function test_another_system_posts_and_what_it_got_wrong_is_mended(): void
    {
        $name = 'Form '.bin2hex(random_bytes(4));
        $this->signIn('ines.okafor');
        $this->open('/setup/hooks');
        $this->press('New');
        $this->see('[aria-label="Name"]')->sendKeys($name);
        $this->chooseFrom('Becomes', 'Customers');
        $this->see('[aria-label="Member 1"]')->sendKeys('who.name');
        $this->chooseFrom('Its field 1', 'Name');
        $this->press('Add a member');
        $this->see('[aria-label="Member 2"]')->sendKeys('who.email');
        $this->chooseFrom('Its field 2', 'Email');
        $this->press('Save');
        $secret = $this->see('[role=status] .figures', 'whsec_')->getText();
        $address = $this->see('p.figures', '/hook/')->getText();

        self::assertSame(200, $this->post($address, $secret, 'a', ['who' => ['name' => "{$name} A", 'email' => 'a@guest.example']]));
        self::assertSame(422, $this->post($address, $secret, 'b', ['who' => ['name' => "{$name} B", 'email' => 'nothing']]));
        self::assertSame(401, $this->post($address, 'whsec_'.base64_encode(random_bytes(24)), 'c', ['who' => ['name' => "{$name} C"]]));

        $this->open('/setup/hooks');
        $this->see('.leaf.left button', $name)->click();
        $this->see('.leaf.left button', '1 not accepted');
        $this->see('.leaf.left button', 'not rightly signed');
        $this->see('.stamp', 'created');
        $this->see('.leaf.right .truncate', 'Email takes an e-mail address')->click();
        $text = $this->see('textarea[aria-label="What arrived"]');
        $text->clear();
        $text->sendKeys('{"who": {"name": "'.$name.' B", "email": "b@guest.example"}}');
        $this->press('Accept the corrected one');
        $this->see('[role=status]', 'It is accepted.');
        $this->see('.leaf.right .truncate', "{$name} B")->click();
        $this->see('.leaf.right a.link', 'C-')->click();
        $this->see('h1', "{$name} B");
        $this->see('.line', 'Another system');
    }

    /** @param  array<string, mixed>  $body */
    private function post(string $address, string $secret, string $key, array $body): int
    {
        $text = (string) json_encode($body);
        $now = time();
        $context = stream_context_create(['http' => [
            'method' => 'POST', 'content' => $text, 'ignore_errors' => true, 'header' => [
                'Content-Type: application/json', "webhook-id: {$key}", "webhook-timestamp: {$now}",
                'webhook-signature: '.(new Webhook($secret))->sign($key, $now, $text),
            ],
        ]]);
        file_get_contents($address, false, $context);

        return (int) explode(' ', $http_response_header[0] ?? '')[1];
    }

    private function chooseFrom(string $label, string $option): void
    {
        $this->see("select[aria-label=\"{$label}\"]")->act(
            static fn (WebDriverElement $select) => (new WebDriverSelect($select))->selectByVisibleText($option),
        );
    }

    private function begin(string $name, string $text): void
    {
        $read = $this->api('POST', 'text/rule', ['text' => "Rule “{$name}”\n{$text}"]);
        self::assertSame([], $read['misread'] ?? [], json_encode($read) ?: '');
        $rule = $this->api('POST', 'rules', ['file' => $read['file']]);
        $this->open("/rules/{$rule['id']}");
        $this->press('Put in force…');
        $this->press('Put in force', 'dialog button');
        $this->see('.stamp', 'In force');
    }

    private function partner(string $name): int
    {
        return (int) $this->api('POST', 'records/partner', ['values' => [
            'name' => $name, 'email' => strtolower(str_replace(' ', '.', $name)).'@crews.example', 'visits_done' => 0,
        ]])['record']['id'];
    }

    private function visit(string $name, int $partner): int
    {
        $agreement = $this->api('POST', 'records/agreement', ['values' => ['title' => $name, 'status' => 'running', 'customer' => 1]]);

        return (int) $this->api('POST', 'records/visit', ['values' => [
            'purpose' => $name, 'agreement' => $agreement['record']['id'], 'status' => 'planned', 'partner' => $partner,
        ]])['record']['id'];
    }

    /** The link in the latest letter on the shelf of the mail room, once it is another than one before. */
    private function link(string $subject, string $before = ''): string
    {
        return $this->until(function () use ($subject, $before): ?string {
            $letter = $this->api('GET', 'mail-room?search='.rawurlencode($subject))['letters'][0] ?? null;
            $text = $letter === null ? '' : $this->api('GET', "mail-room/{$letter['id']}")['text'];
            preg_match('#/slip/[\w-]{43}#', $text, $found);

            return ($found[0] ?? $before) === $before ? null : $found[0];
        }, 'for the letter');
    }
}
