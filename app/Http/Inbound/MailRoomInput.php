<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class MailRoomInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'search' => 'nullable|string|max:200', 'before' => 'nullable|integer|min:0',
            'after' => 'nullable|integer|min:0|prohibits:before',
        ];
    }

    public function meant(): array
    {
        return [
            'search' => 'Words that all have to be found.',
            'before' => 'Only letters with a lower id.',
            'after' => 'Only letters with a higher id, the lowest first.',
        ];
    }
}
