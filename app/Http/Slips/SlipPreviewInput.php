<?php

declare(strict_types=1);

namespace App\Http\Slips;

use Illuminate\Foundation\Http\FormRequest;

final class SlipPreviewInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'recordType' => 'required|string', 'subject' => 'present|nullable|string|max:400',
            'body' => 'present|nullable|string|max:60000', 'asks' => 'present|array|list|max:30',
        ];
    }
}
