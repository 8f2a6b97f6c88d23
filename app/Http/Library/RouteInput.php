<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class RouteInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            ...($this->isMethod('PUT') ? ['version' => 'required|integer'] : ['recordType' => 'required|string']),
            'name' => 'present|nullable|string',
            'steps' => 'present|array|list|max:10',
        ];
    }
}
