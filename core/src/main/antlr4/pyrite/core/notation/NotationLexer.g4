/* The tokens of SysML v2's textual notation (KerML 8.2.2). Keywords are words; which of them are kept is said in Keywords. */
lexer grammar NotationLexer;

NUMBER : DIGIT+ ('.' DIGIT+)? ([eE] [+-]? DIGIT+)? | '.' DIGIT+ ([eE] [+-]? DIGIT+)? ;
WORD : LETTER (LETTER | DIGIT)* ;
QUOTED : '\'' (~['\\\r\n] | '\\' .)* '\'' ;
STRING : '"' (~["\\] | '\\' .)* '"' ;
NOTE : '//*' .*? '*/' | '//' ~[\r\n]* ;
BLOCK : '/*' .*? '*/' ;
SIGN
    : '::>' | ':>>' | '===' | '!=='
    | '::' | ':>' | ':=' | '=>' | '==' | '!=' | '<=' | '>=' | '->' | '..' | '**' | '??' | '.?' | '@@'
    | [;:,.(){}<>=+\-*/%^~#@?&|] | '[' | ']'
    ;
BLANK : [ \t\r\n\f\uFEFF]+ -> skip ;
UNKNOWN : . ;

fragment DIGIT : [0-9] ;
fragment LETTER : [\p{L}_°] ;
