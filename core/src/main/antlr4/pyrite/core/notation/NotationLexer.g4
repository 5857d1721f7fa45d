/* The tokens of SysML v2's textual notation (KerML 8.2.2). Keywords are words; which of them are kept is said in Keywords. */
lexer grammar NotationLexer;

NUMBER : DIGIT+ ('.' DIGIT+)? ([eE] [+-]? DIGIT+)? | '.' DIGIT+ ([eE] [+-]? DIGIT+)? ;
/* The dollar sign alone begins a name that is looked up from the top (KerML, qualified names). */
WORD : LETTER (LETTER | DIGIT)* | '$' ;
/* A name with other letters than the basic ones; it is written in quotes (KerML 8.2.2.3) and reported without them. */
FOREIGN : (LETTER | OTHER) (LETTER | DIGIT | OTHER)* ;
QUOTED : '\'' (~['\\\r\n] | '\\' ~[\r\n])* '\'' ;
STRING : '"' (~["\\] | '\\' .)* '"' ;
NOTE : '//*' .*? '*/' | '//' (~[*\r\n] ~[\r\n]*)? ;
BLOCK : '/*' .*? '*/' ;
/* What is begun and not ended takes all that is left at once; else each beginning would be looked for to the end of the text. */
UNENDED
    : '/' '/'? '*' (~'*' | '*'+ ~[*/])* '*'* EOF
    | '"' (~["\\] | '\\' .)* '\\'? EOF
    | '\'' (~['\\\r\n] | '\\' ~[\r\n])* '\\'? ([\r\n] | EOF)
    ;
SIGN
    : '::>' | ':>>' | '===' | '!=='
    | '::' | ':>' | ':=' | '=>' | '==' | '!=' | '<=' | '>=' | '->' | '..' | '**' | '??' | '.?' | '@@'
    | [;:,.(){}<>=+\-*/%^~#@?&|] | '[' | ']'
    ;
BLANK : [ \t\r\n\f\uFEFF]+ -> skip ;
UNKNOWN : . ;

fragment DIGIT : [0-9] ;
fragment LETTER : [a-zA-Z_] ;
fragment OTHER : [\p{L}\p{M}°′″] ;
