<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class NewLetterInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'recordType' => 'required|string', 'name' => 'present|nullable|string', 'subject' => 'present|nullable|string',
            'body' => 'present|nullable|string',
        ];
    }
}
