// Styles have no place in tests that read markup.
export {};
