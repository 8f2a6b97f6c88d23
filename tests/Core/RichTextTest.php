<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\Template\LightText;
use VividLedger\Template\RichText;

/** What a letter's text keeps, what it drops, and how it reads without its formatting. */
final class RichTextTest extends TestCase
{
    /** @return iterable<string, array{string, string}> what came in, what is kept */
    public static function cleaned(): iterable
    {
        yield 'formatting stays' => ['<p>A <strong>b</strong> <em>c</em> <u>d</u></p>', '<p>A <strong>b</strong> <em>c</em> <u>d</u></p>'];
        yield 'lists stay' => ['<ul><li>one</li></ul><ol><li>two</li></ol>', '<ul><li>one</li></ul><ol><li>two</li></ol>'];
        yield 'headings and quotes stay' => [
            '<h2>A</h2><h3>B</h3><blockquote>C</blockquote>', '<h2>A</h2><h3>B</h3><blockquote>C</blockquote>',
        ];
        yield 'a link keeps where it leads' => [
            '<a href="https://larkmoss.example/a" target="x">A</a>', '<a href="https://larkmoss.example/a">A</a>',
        ];
        yield 'a link that runs a script leads nowhere' => ['<a href="javascript:alert(1)">A</a>', '<a>A</a>'];
        yield 'a link that carries a page leads nowhere' => ['<a href="data:text/html,x">A</a>', '<a>A</a>'];
        yield 'a script goes with all it says' => ['<p>A<script>alert(1)</script></p>', '<p>A</p>'];
        yield 'a style goes' => ['<p style="color:red" class="x">A</p>', '<p>A</p>'];
        yield 'a handler goes' => ['<p onclick="alert(1)">A</p>', '<p>A</p>'];
        yield 'a picture goes' => ['<p>A<img src="https://x.example/p.png" onerror="alert(1)"></p>', '<p>A</p>'];
        yield 'a frame goes' => ['<p>A</p><iframe src="https://x.example"></iframe>', '<p>A</p>'];
        yield 'a form goes' => ['<form action="https://x.example"><input name="a"></form><p>A</p>', '<p>A</p>'];
        yield 'a merge field stays' => [
            '<p><span data-merge="customer.name">Customer</span></p>', '<p><span data-merge="customer.name">Customer</span></p>',
        ];
    }

    #[DataProvider('cleaned')]
    public function test_what_is_kept(string $given, string $kept): void
    {
        self::assertSame($kept, RichText::clean($given));
        self::assertSame($kept, RichText::clean(RichText::clean($given)), 'cleaning again changes nothing');
    }

    public function test_merge_fields_are_found_in_their_order(): void
    {
        $text = RichText::clean(
            '<p><span data-merge="due">Due</span> and <span data-merge="customer.name">Name</span>, <span data-merge="due">Due</span></p>',
        );

        self::assertSame(['due', 'customer.name', 'due'], RichText::merges($text));
        self::assertSame("<p>{{ merge('due') }} and {{ merge('customer.name') }}, {{ merge('due') }}</p>", RichText::twig($text));
    }

    /** @return iterable<string, array{string}> names that no field has */
    public static function forgedNames(): iterable
    {
        yield 'a quote' => ["x') ~ dump('"];
        yield 'braces' => ['x }} {{ 7*7'];
        yield 'a capital letter' => ['Name'];
        yield 'nothing' => [''];
        yield 'a tag' => ['<b>'];
    }

    #[DataProvider('forgedNames')]
    public function test_a_forged_merge_field_is_text(string $name): void
    {
        $text = RichText::clean('<p><span data-merge="'.htmlspecialchars($name).'">x</span></p>');

        self::assertSame([], RichText::merges($text));
        self::assertStringNotContainsString('{{', RichText::twig($text));
    }

    /** @return iterable<string, array{string, string}> formatted text, the same without formatting */
    public static function plains(): iterable
    {
        yield 'paragraphs stand apart' => ['<p>One</p><p>Two</p>', "One\n\nTwo"];
        yield 'a break is a new line' => ['<p>One<br />Two</p>', "One\nTwo"];
        yield 'a list has dashes' => ['<p>We bring:</p><ul><li>ferns</li><li>soil</li></ul>', "We bring:\n\n- ferns\n- soil"];
        yield 'a link says where it leads' => [
            '<p>See <a href="https://larkmoss.example">our page</a>.</p>', 'See our page (https://larkmoss.example).',
        ];
        yield 'signs are signs' => ['<p>1 &lt; 2 &amp; 3 &quot;ok&quot; &#8364;</p>', '1 < 2 & 3 "ok" €'];
        yield 'white space between tags is nothing' => ["<p>One</p>\n\n   <p>  Two  </p>", "One\n\nTwo"];
        yield 'nothing is nothing' => ['<p></p>', ''];
    }

    #[DataProvider('plains')]
    public function test_without_its_formatting(string $formatted, string $plain): void
    {
        self::assertSame($plain, RichText::plain($formatted));
    }

    /** Whatever is thrown at it, what comes out is text and the few tags a letter knows, and no template syntax of its own. */
    public function test_nothing_gets_through(): void
    {
        $pieces = [
            '<p>', '</p>', '<script>', '</script>', '<b', '>', '"', "'", '{{', '}}', '{%', '%}', '<!--', '-->', '<svg onload=alert(1)>',
            '<a href="', 'javascript:', '<span data-merge="name">', '</span>', '&lt;', '&#123;', 'text', '🌿', "\0",
        ];
        $random = new Randomizer(new Mt19937(3));
        for ($count = 0; $count < 400; $count++) {
            $given = implode(
                '',
                array_map(static fn (): string => $pieces[$random->getInt(0, count($pieces) - 1)], range(1, $random->getInt(1, 14))),
            );
            $clean = RichText::clean($given);
            preg_match_all('/<\/?([a-z0-9]+)/i', $clean, $tags);
            self::assertSame(
                [],
                array_diff($tags[1], ['p', 'br', 'strong', 'em', 'u', 'ul', 'ol', 'li', 'h2', 'h3', 'blockquote', 'a', 'span']),
                $given,
            );
            self::assertDoesNotMatchRegularExpression('/<[^>]*(javascript:|onload|onerror)/i', $clean, $given);
            $twig = RichText::twig($clean);
            self::assertSame(count(RichText::merges($clean)), substr_count($twig, '{{'), $given);
            self::assertStringNotContainsString('{%', $twig);
        }
    }

    /** A letter as light text says the same, formatting and fields included, and comes back as it was. */
    public function test_a_letter_as_light_text_comes_back(): void
    {
        self::assertSame(
            "Hello **{customer.name}**,\n\n- one\n- *two*\n\n> [here](https://larkmoss.example/a)",
            LightText::of('<p>Hello <strong><span data-merge="customer.name">Name</span></strong>,</p><ul><li><p>one</p></li>'
                .'<li><em>two</em></li></ul><blockquote><p><a href="https://larkmoss.example/a">here</a></p></blockquote>'),
        );
        $random = new Randomizer(new Mt19937(3));
        $one = static fn (array $of): string => (string) $of[$random->getInt(0, count($of) - 1)];
        $words = ['plain', 'A & B', '{not a field', '*star*', '1_2', '- dash', '[x]', '2. two', '\\', '# no', '“q”', '&lt;b&gt;'];
        for ($round = 0; $round < 400; $round++) {
            $inline = static function () use ($one, $words): string {
                $text = htmlspecialchars(html_entity_decode($one($words)), ENT_NOQUOTES);

                return $one([
                    $text, "{$text} and {$text}", "<strong>{$text}</strong> x", "<em>{$text}</em>", "<u>{$text}</u>",
                    "{$text}<br />{$text}",
                    "<span data-merge=\"name\">name</span> {$text}", "<a href=\"https://larkmoss.example/?a=1&amp;b=2\">{$text}</a>",
                ]);
            };
            $html = '';
            for ($blocks = $random->getInt(1, 4); $blocks > 0; $blocks--) {
                $html .= $one([
                    "<p>{$inline()}</p>", "<h2>{$inline()}</h2>", "<ul><li><p>{$inline()}</p></li><li><p>{$inline()}</p></li></ul>",
                    "<ol><li><p>{$inline()}</p></li></ol>", "<blockquote><p>{$inline()}</p></blockquote>",
                ]);
            }
            $light = LightText::of($html);
            self::assertNotNull($light);
            self::assertDoesNotMatchRegularExpression('/<\/?(?:p|strong|em|u|ul|ol|li|a|span|h2|br)\b/', $light);
            $again = LightText::html($light, static fn (string $path): string => $path);
            self::assertSame(RichText::plain($html), RichText::plain($again), $light);
            self::assertSame(RichText::merges($html), RichText::merges($again), $light);
            self::assertSame($light, LightText::of($again));
        }
        self::assertNull(LightText::of('<ul><li>a<ul><li>b</li></ul></li></ul>'), 'a list in a list has no such words');
    }
}
