<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Store\Outbound\EndpointStore;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class EndpointInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        $headers = ['array', 'list', 'max:20'];

        return [
            ...($this->isMethod('PUT') ? ['version' => 'required|integer'] : []), 'name' => 'present|nullable|string',
            'url' => 'present|nullable|string|max:1000',
            'method' => ['required', Rule::in(EndpointStore::METHODS)], 'headers' => ['present', ...$headers],
            'headers.*.name' => 'required|string|max:100', 'headers.*.value' => 'present|nullable|string|max:2000',
            'secretHeaders' => ['sometimes', 'nullable', ...$headers], 'secretHeaders.*.name' => 'required|string|max:100',
            'secretHeaders.*.value' => 'present|nullable|string|max:2000', 'signingSecret' => 'sometimes|nullable|string|max:200',
            'timeout' => 'required|integer|min:1|max:60', 'tries' => 'required|integer|min:1|max:20',
            'atOnce' => 'required|integer|min:1|max:50', 'perMinute' => 'required|integer|min:1|max:6000',
            'mayBeInside' => 'required|boolean',
        ];
    }

    /**
     * As it is kept; secrets that were not given are null, and stay as they are.
     *
     * @return array{
     *     name: string, url: string, method: string, headers: array<string, string>, timeout: int, tries: int, atOnce: int,
     *     perMinute: int, mayBeInside: bool, secretHeaders: ?array<string, string>, signingSecret: ?string,
     * }
     */
    public function given(): array
    {
        $given = $this->validated();
        $named = static fn (array $headers): array => array_map(strval(...), array_column($headers, 'value', 'name'));

        return [
            'name' => (string) $given['name'], 'url' => (string) $given['url'], 'method' => (string) $given['method'],
            'headers' => $named($given['headers']), 'timeout' => (int) $given['timeout'], 'tries' => (int) $given['tries'],
            'atOnce' => (int) $given['atOnce'], 'perMinute' => (int) $given['perMinute'], 'mayBeInside' => (bool) $given['mayBeInside'],
            'secretHeaders' => isset($given['secretHeaders']) ? $named($given['secretHeaders']) : null,
            'signingSecret' => isset($given['signingSecret']) ? (string) $given['signingSecret'] : null,
        ];
    }
}
