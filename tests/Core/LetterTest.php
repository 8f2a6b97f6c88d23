<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Rule\Letter\Letter;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Template\RichText;

/** Letters: what is merged, in which language, and that nothing hostile survives. */
final class LetterTest extends TestCase
{
    /** @param  array<string, mixed>  $values */
    private function letter(string $subject, string $body, array $values = [], string $language = 'en'): \VividLedger\Message\Message
    {
        $world = new World;
        $world->records['customer:1'] = World::made(
            'customer',
            1,
            ['name' => 'Brine', 'email' => 'desk@brine.example', 'language' => $language],
        );
        $rule = $world->rule([
            'lines' => [
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'customer']], 'subject' => $subject, 'body' => $body],
            ],
        ]);

        return $world->decide([$rule], null, World::ticket($values))->firings()[0]->performance->messages[0];
    }

    private static function merge(string $path): string
    {
        return "<span data-merge=\"{$path}\">x</span>";
    }

    public function test_values_are_written_as_the_language_does(): void
    {
        $body = '<p>'.implode('|', array_map(self::merge(...), ['cost', 'due', 'rooms', 'paid', 'status'])).'</p>';
        $values = ['cost' => '1240.50', 'due' => '2026-03-01', 'rooms' => 'lobby,spa,bar', 'paid' => true];
        self::assertSame('€ 1,240.50|1 Mar 2026|Lobby, Spa and Bar|yes|Open', $this->letter('S', $body, $values)->text);
        self::assertSame("1.240,50\u{A0}€|1. März 2026|Lobby, Spa und Bar|ja|Open", $this->letter('S', $body, $values, 'de')->text);
    }

    public function test_an_empty_field_leaves_nothing_and_is_named(): void
    {
        $letter = $this->letter('About {number}, {code}', '<p>Due '.self::merge('due').'.</p>');
        self::assertSame(['About T-0007,', 'Due .', ['Code', 'Due']], [$letter->subject, $letter->text, $letter->missing]);
    }

    /** @return iterable<string, array{string}> */
    public static function hostile(): iterable
    {
        yield 'a script' => ['<script>alert(1)</script>'];
        yield 'an image' => ['<img src=x onerror=alert(1)>'];
        yield 'an expression' => ['{{ 7 * 7 }}{% include "/etc/passwd" %}{# x #}'];
        yield 'our own braces' => ['{number} {customer.name}'];
        yield 'a merge field' => ['<span data-merge="customer.email">x</span>'];
        yield 'an entity' => ['&lt;b&gt; &amp;#123;'];
        yield 'a header' => ["Hello\r\nBcc: all@x.example"];
    }

    #[DataProvider('hostile')]
    public function test_hostile_field_text_comes_out_as_the_text_it_is(string $text): void
    {
        $oneLine = (string) preg_replace('/\s+/', ' ', $text);
        $letter = $this->letter('S {notes}', '<p>'.self::merge('notes').'</p>', ['notes' => $text]);
        self::assertStringNotContainsString('<script', $letter->html);
        self::assertStringNotContainsString('<img', $letter->html);
        self::assertSame("S {$oneLine}", $letter->subject, 'one line, so no header can begin in it');
        self::assertSame(html_entity_decode(htmlspecialchars($oneLine)), (string) preg_replace('/\s+/', ' ', $letter->text));
    }

    #[DataProvider('hostile')]
    public function test_hostile_text_in_the_letter_itself_is_inert(string $text): void
    {
        $letter = $this->letter(
            'S',
            "<p>Hello {$text}</p><p onclick=\"x()\"><a href=\"javascript:x()\">link</a><iframe src=\"//x.example\"></iframe></p>",
        );
        foreach (['<script', '<img', 'onclick', 'javascript:', '<iframe', '49'] as $never) {
            self::assertStringNotContainsString($never, $letter->html);
        }
    }

    #[DataProvider('hostile')]
    public function test_what_is_merged_into_an_address_is_a_part_of_it(string $text): void
    {
        $letter = $this->letter(
            'S',
            '<p><a href="https://x.example/{number}?q={notes}&amp;z=%7B1%7D">there</a> <a href="mailto:{email}">mail</a></p>',
            ['notes' => $text, 'email' => 'marit@hotel.example'],
        );
        $address = 'https://x.example/T-0007?q='.rawurlencode(trim($text)).'&z=%7B1%7D';
        self::assertStringContainsString('href="'.htmlspecialchars(str_replace('%40', '@', $address)).'"', $letter->html);
        self::assertStringContainsString('href="mailto:marit@hotel.example"', $letter->html);
    }

    public function test_a_link_to_the_record_and_a_field_that_is_not_there(): void
    {
        $letter = $this->letter('See {number} {link}', '<p>See '.self::merge('link').'.</p>');
        self::assertSame('See T-0007 (/records/ticket/7)', $letter->subject);
        self::assertSame('<p>See <a href="/records/ticket/7">T-0007</a>.</p>', $letter->html);
        self::assertSame('See T-0007 (/records/ticket/7).', $letter->text);
        $context = new Context(World::schema(), new World, World::schema()->types['ticket'], new \DateTimeZone('Europe/Berlin'));
        self::assertNull(Letter::read($context, new Node('S', '/subject'), new Node(
            '<p><a href="https://x.example/{nothing}">x</a></p>', '/body',
        ), true));
        self::assertSame(['/body', 'unknown_field'], [$context->sheet->problems[0]->at, $context->sheet->problems[0]->code]);
    }

    public function test_formatting_survives_and_reads_as_plain_text(): void
    {
        $html = '<h2>News</h2><p><strong>Bold</strong> and <em>soft</em><br />next</p><ul><li>one</li><li>two</li></ul><p><a '
            .'href="https://x.example">here</a></p>';
        self::assertSame(
            "News\n\nBold and soft\nnext\n\n- one\n- two\n\nhere (https://x.example)",
            RichText::plain(RichText::clean($html)),
        );
        self::assertSame(
            ['a', 'b.c'],
            RichText::merges(RichText::clean(
                '<p><span data-merge="a">A</span> <span data-merge="b.c">B</span> <span data-merge="__x">C</span></p>',
            )),
        );
    }
}
