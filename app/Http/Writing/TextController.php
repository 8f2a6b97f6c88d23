<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Rules\RuleFileInput;
use OpenApi\Attributes as OA;
use VividLedger\Text\RuleText;

/** Rules as text: printed, and read from what somebody types. */
final class TextController extends Controller
{
    public function __construct(private readonly RuleText $text)
    {
    }

    #[
        OA\Post(
            path: '/api/text/print',
            operationId: 'printRule',
            description: 'A rule file as text.',
            tags: ['rules'],
            responses: [new Ok(PrintedResource::class)],
        ),
    ]
    public function print(RuleFileInput $request): PrintedResource
    {
        return new PrintedResource($this->text->print($request->validated()['file']));
    }

    #[
        OA\Post(
            path: '/api/text/rule',
            operationId: 'readRuleText',
            description: 'Reads the text of a whole rule, row by row. Where it does not say what the rule is about, that is the type '
                .'given.',
            tags: ['rules'],
            responses: [new Ok(TextResource::class)],
        ),
    ]
    public function rule(RuleTextInput $request): TextResource
    {
        $given = $request->validated();
        $type = isset($given['on']) ? $this->type((string) $given['on']) : null;

        return TextResources::of($this->text->parse((string) $given['text'], $type), fn (array $file): string => $this->text->print($file));
    }

    #[
        OA\Post(
            path: '/api/text/sentence',
            operationId: 'readSentence',
            description: 'Reads a whole rule that is said in one sentence, about the type given or the one it names.',
            tags: ['rules'],
            responses: [new Ok(TextResource::class)],
        ),
    ]
    public function sentence(SentenceInput $request): TextResource
    {
        $given = $request->validated();
        $type = isset($given['on']) ? $this->type((string) $given['on']) : null;

        return TextResources::of(
            $this->text->parseSentence((string) $given['text'], $type),
            fn (array $file): string => $this->text->print($file),
        );
    }

    #[
        OA\Post(
            path: '/api/text/line',
            operationId: 'readLineText',
            description: 'Reads a line of a rule, or another part of it, as it is typed. What is not understood comes with what could '
                .'stand there; what can mean several things comes with each of them.',
            tags: ['rules'],
            responses: [new Ok(TextResource::class)],
        ),
    ]
    public function line(LineTextInput $request): TextResource
    {
        $given = $request->validated();
        $type = $this->type((string) $given['on']);
        $part = (string) ($given['part'] ?? 'line');

        return TextResources::of(
            $this->text->parsePart((string) $given['text'], $part, $type),
            fn (array $json): string => $this->text->printPart($json, $part, $type),
        );
    }
}
