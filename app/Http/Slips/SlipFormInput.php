<?php

declare(strict_types=1);

namespace App\Http\Slips;

use Illuminate\Foundation\Http\FormRequest;

final class SlipFormInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            ...($this->isMethod('PUT') ? ['version' => 'required|integer'] : ['recordType' => 'required|string']),
            'name' => 'present|nullable|string',
            'subject' => 'present|nullable|string', 'body' => 'present|nullable|string|max:60000', 'asks' => 'present|array|list|max:30',
        ];
    }
}
