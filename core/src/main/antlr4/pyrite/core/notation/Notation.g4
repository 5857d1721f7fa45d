/*
 * The textual notation of SysML v2 (OMG formal specification, 8.2.2) as far as Pyrite reads it. One rule declares all
 * kinds: which kind it is follows from the keyword and the table ElementKind, not from the grammar.
 */
grammar Notation;

file : member* EOF ;

loneExpression : expression EOF ;
loneUnit : expression EOF ;

member
    : visibility? importDeclaration
    | documentation
    | comment
    | visibility? packageDeclaration
    | visibility? binding
    | visibility? satisfaction
    | visibility? verified
    | visibility? declaration
    ;

visibility : 'public' | 'protected' | 'private' ;

packageDeclaration : 'library'? 'package' identification? (';' | '{' member* '}') ;
importDeclaration : 'import' qualifiedName importReach? ';' ;
importReach : '::' '*' ('::' '**')? | '::' '**' ;
documentation : 'doc' identification? BLOCK ;
comment : ('comment' identification?)? BLOCK ;
binding : 'bind' chain '=' chain ';' ;
satisfaction : 'assert'? 'satisfy' chain ('by' chain)? ';' ;
verified : 'verify' chain ';' ;

declaration
    : prefix* keyword 'def'? identification? clause* value? ending
    | prefix+ identification? clause* value? ending
    | identification clause* value? ending
    | clause+ value? ending
    ;
prefix : 'abstract' | 'in' | 'out' | 'inout' | 'return' ;
keyword
    : 'part' | 'attribute' | 'ref' | 'calc'
    | 'assert' 'constraint' | 'require' 'constraint' | 'constraint'
    | 'requirement' | 'subject' | 'objective' | 'analysis' | 'verification'
    ;
identification : '<' name '>' name? | name ;
clause
    : (':' | 'defined' 'by') references                        # typed
    | (':>' | 'specializes' | 'subsets') references            # specialized
    | (':>>' | 'redefines') references                         # redefined
    | '[' bound ('..' bound)? ']'                              # multiplicity
    ;
references : chain (',' chain)* ;
bound : NUMBER | '*' ;
value : ('=' | ':=') expression ;
ending : ';' | '{' member* expression? '}' ;

chain : qualifiedName ('.' name)* ;
qualifiedName : name ('::' name)* ;
name : NAME | QUOTED | 'defined' ;

expression
    : primary                                                            # atom
    | ('-' | '+' | 'not') expression                                     # unary
    | <assoc=right> expression '^' expression                            # binary
    | expression ('*' | '/') expression                                  # binary
    | expression ('+' | '-') expression                                  # binary
    | expression ('<' | '<=' | '>' | '>=') expression                    # binary
    | expression ('==' | '!=') expression                                # binary
    | expression 'and' expression                                        # binary
    | expression 'xor' expression                                        # binary
    | expression 'or' expression                                         # binary
    | expression 'implies' expression                                    # binary
    | 'if' expression '?' expression 'else' expression                   # conditional
    ;

primary
    : primary '[' expression ']'                               # quantity
    | NUMBER                                                   # number
    | STRING                                                   # string
    | ('true' | 'false')                                       # truth
    | qualifiedName '(' (expression (',' expression)*)? ')'    # invocation
    | chain                                                    # reference
    | '(' expression ')'                                       # parenthesis
    ;

DEF : 'def' ;
NUMBER : DIGIT+ ('.' DIGIT+)? ([eE] [+-]? DIGIT+)? | '.' DIGIT+ ([eE] [+-]? DIGIT+)? ;
NAME : LETTER (LETTER | DIGIT)* ;
QUOTED : '\'' (~['\\\r\n] | '\\' .)* '\'' ;
STRING : '"' (~["\\] | '\\' .)* '"' ;
BLOCK : '/*' .*? '*/' ;
NOTE : '//' ~[\r\n]* -> channel(HIDDEN) ;
BLANK : [ \t\r\n\f\uFEFF]+ -> skip ;
UNKNOWN : . ;

fragment DIGIT : [0-9] ;
fragment LETTER : [\p{L}_°%] ;
